"use client";

import { useEffect, useState } from "react";

/** Ink of the theme that is on, read from the page, since a canvas knows no CSS variables. */
export function useInk(): { ink: string; rule: string; stop: string } {
  const read = () => {
    const style = getComputedStyle(document.documentElement);
    return {
      ink: style.getPropertyValue("--color-base-content").trim(),
      rule: style.getPropertyValue("--color-base-300").trim(),
      stop: style.getPropertyValue("--color-error").trim(),
    };
  };
  const [colours, setColours] = useState({ ink: "#444", rule: "#bbb", stop: "#b3260e" });
  useEffect(() => {
    const renew = () => setColours(read());
    queueMicrotask(renew);
    const observer = new MutationObserver(renew);
    observer.observe(document.documentElement, { attributes: true, attributeFilter: ["data-theme"] });
    return () => observer.disconnect();
  }, []);
  return colours;
}
