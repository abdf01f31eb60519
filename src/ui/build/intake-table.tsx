import Link from "next/link";
import type { Asked } from "@/core/sheet";
import { Signal } from "../frame/signal";

interface Line {
  id: string;
  number: string;
  subject: string;
  machine: string | null;
  asked: number | null;
  open: readonly Asked[];
}

/** What is open, by zone: the label that the installer has for it, on its screen. */
function Open({ id, open }: { id: string; open: readonly Asked[] }) {
  return (
    <ul>
      {open.map(({ screen, label, zone, isSecret }, i) => (
        <li key={i}>
          <Link className="link" href={`/builds/${id}#zone-${zone}`}>
            {zone} {isSecret ? "credential location" : label}
          </Link>{" "}
          <span className="quiet">on &ldquo;{screen}&rdquo;</span>
        </li>
      ))}
    </ul>
  );
}

/** Sheet by sheet, whether everything that will be asked has its answer. */
export function IntakeTable({ lines }: { lines: readonly Line[] }) {
  if (lines.length === 0) return null;
  return (
    <table className="table" aria-label="Build sheets and their missing answers">
      <thead>
        <tr>
          <th>Sheet</th>
          <th>Machine</th>
          <th>Answers</th>
          <th>Missing</th>
        </tr>
      </thead>
      <tbody>
        {lines.map(({ id, number, subject, machine, asked, open }) => (
          <tr key={id} className="align-top">
            <td>
              <Link className="link" href={`/builds/${id}`}>
                {number}
              </Link>{" "}
              {subject}
            </td>
            <td>{machine ?? "none chosen"}</td>
            <td className="whitespace-nowrap">
              {asked === null ? "unknown" : `${asked - open.length} of ${asked}`}
            </td>
            <td>
              {asked === null ? (
                "known once a machine and an image with a profile are chosen"
              ) : open.length === 0 ? (
                "✓ none"
              ) : (
                <div className="flex gap-2">
                  <Signal severity="caution" size={12} />
                  <Open id={id} open={open} />
                </div>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
