import Link from "next/link";
import type { Image, ShelfMark } from "@/core/image";

/** What is the matter with an image on the shelf, and what goes with it. */
export function ShelfLines({
  marks,
  companions,
}: {
  marks: readonly ShelfMark[];
  companions: readonly (Pick<Image, "name" | "purpose"> & { id: string })[];
}) {
  if (marks.length + companions.length === 0) return null;
  return (
    <ul className="mb-6 space-y-1">
      {marks.map((m) => (
        <li key={m.words} className="border-l-4 pl-3 border-warning">
          {m.other ? (
            <Link className="link" href={`/images/${m.other}`}>
              {m.words}
            </Link>
          ) : (
            m.words
          )}
        </li>
      ))}
      {companions.map((c) => (
        <li key={c.id}>
          <span className="label mr-2">{c.purpose === "installer" ? "belongs to" : c.purpose}</span>
          <Link className="link" href={`/images/${c.id}`}>
            {c.name}
          </Link>
        </li>
      ))}
    </ul>
  );
}
