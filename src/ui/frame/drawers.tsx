"use client";

import Link from "next/link";
import { usePathname, useRouter } from "next/navigation";
import { useKeys } from "./use-keys";

const DRAWERS = [
  { href: "/", title: "Today" },
  { href: "/sites", title: "Sites" },
  { href: "/machines", title: "Machines" },
  { href: "/images", title: "Images" },
  { href: "/builds", title: "Builds" },
  { href: "/bench", title: "Storage planner" },
] as const;

const isOpen = (href: string, path: string): boolean =>
  href === "/" ? path === "/" : path.startsWith(href) || (href === "/builds" && path.startsWith("/runs"));

export function Drawers() {
  const path = usePathname();
  const router = useRouter();
  useKeys("1,2,3,4,5,6", (_, key) => {
    const drawer = DRAWERS[Number(key.keys?.join("")) - 1];
    if (drawer) router.push(drawer.href);
  });
  return (
    <nav aria-label="Main menu" className="flex items-end gap-0.5">
      {DRAWERS.map((drawer, i) => (
        <Link
          key={drawer.href}
          href={drawer.href}
          aria-current={isOpen(drawer.href, path) ? "page" : undefined}
          aria-keyshortcuts={String(i + 1)}
          className="relative -mb-px border border-base-300 border-b-base-content px-2.5 pt-1 pb-1.5 text-[0.93rem] whitespace-nowrap aria-[current=page]:border-base-content aria-[current=page]:border-b-base-100 aria-[current=page]:bg-base-100 aria-[current=page]:font-semibold"
        >
          {drawer.title}
          {/* the pull of the drawer */}
          <span
            aria-hidden="true"
            className="absolute inset-x-0 bottom-0.5 mx-auto h-px w-4"
            style={{ background: "currentColor", opacity: isOpen(drawer.href, path) ? 0 : 0.5 }}
          />
        </Link>
      ))}
    </nav>
  );
}
