"use client";

import { useRouter } from "next/navigation";
import { useEffect } from "react";

/**
 * Back and forward show a page as it was when it was left; what was written since is asked for. A save on what stood there
 * then would be refused.
 */
export function FreshOnReturn() {
  const router = useRouter();
  useEffect(() => {
    const renew = (): void => router.refresh();
    addEventListener("popstate", renew);
    return () => removeEventListener("popstate", renew);
  }, [router]);
  return null;
}
