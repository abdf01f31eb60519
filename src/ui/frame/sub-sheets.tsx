import Link from "next/link";

/** The sheets inside one drawer, side by side: the open one is named plainly, the others are links. */
export function SubSheets({
  sheets,
  open,
}: {
  sheets: readonly { href: string; title: string }[];
  open: string;
}) {
  return (
    <nav aria-label="Pages in this section" className="mb-3 flex flex-wrap gap-x-5 gap-y-1 text-[0.93rem]">
      {sheets.map((s) =>
        s.href === open ? (
          <span key={s.href} aria-current="page" className="border-b-2 font-semibold border-current">
            {s.title}
          </span>
        ) : (
          <Link key={s.href} className="quiet border-b border-transparent hover:border-current" href={s.href}>
            {s.title}
          </Link>
        ),
      )}
    </nav>
  );
}

export const MACHINE_SHEETS = [
  { href: "/machines", title: "Machines" },
  { href: "/machines/drives", title: "Drives, USB sticks and cards" },
  { href: "/machines/compatibility", title: "Compatibility" },
] as const;

/** The sheets of one site. */
export const siteSheets = (id: string) =>
  [
    { href: `/sites/${id}`, title: "Networks and defaults" },
    { href: `/sites/${id}/wiring`, title: "Switches and cables" },
    { href: `/sites/${id}/files`, title: "Files" },
    { href: `/sites/${id}/keys`, title: "Keys" },
  ] as const;
