"use client";

import { useRouter } from "next/navigation";
import { useEffect } from "react";

/** Asks the server again while the page is in sight. */
export function KeepFresh({ seconds }: { seconds: number }) {
  const router = useRouter();
  useEffect(() => {
    const timer = setInterval(() => !document.hidden && router.refresh(), seconds * 1000);
    return () => clearInterval(timer);
  }, [router, seconds]);
  return null;
}
