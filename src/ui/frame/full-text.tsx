"use client";

import { useEffect } from "react";

/** What a field shows while it has no focus: its value, or the example that stands in its place. */
const shownIn = (field: HTMLInputElement | HTMLSelectElement): string =>
  field instanceof HTMLSelectElement
    ? (field.selectedOptions[0]?.text ?? "")
    : field.value || field.placeholder;

/** A field whose text is longer than itself tells all of it to a pointer that rests on it. */
function tellFullText({ target }: Event): void {
  if (!(target instanceof HTMLInputElement || target instanceof HTMLSelectElement)) return;
  if (target.type === "password" || (target.title && target.dataset.told !== target.title)) return;
  // How wide an option or an example is, a field does not say: they are told always.
  const isCut =
    target instanceof HTMLSelectElement || target.value === "" || target.scrollWidth > target.clientWidth;
  target.title = isCut ? shownIn(target) : "";
  target.dataset.told = target.title;
}

export function FullText() {
  useEffect(() => {
    document.addEventListener("pointerover", tellFullText);
    return () => document.removeEventListener("pointerover", tellFullText);
  }, []);
  return null;
}
