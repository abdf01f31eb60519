import type { Cell, Firmware, Inspection } from "@/core/image";

const COLUMNS: { key: Firmware; title: string }[] = [
  { key: "legacy", title: "Legacy BIOS" },
  { key: "x64", title: "UEFI, x86-64" },
  { key: "aa64", title: "UEFI, Arm 64" },
  { key: "ia32", title: "UEFI, x86-32" },
];

const COLOUR: Record<Cell["answer"], string> = {
  boots: "var(--color-success)",
  "on some firmware": "var(--color-warning)",
  "does not": "var(--color-error)",
};

/** Where the file starts, by medium and firmware, each with its reason. */
export function VerdictTable({ verdict }: { verdict: Inspection["verdict"] }) {
  const rows = [
    { title: "Optical or virtual disc", row: verdict.optical },
    { title: "USB stick, byte for byte", row: verdict.stick },
  ];
  return (
    <div className="overflow-x-auto">
      <table className="table min-w-[52rem]" aria-label="Boot modes">
        <thead>
          <tr>
            <th></th>
            {COLUMNS.map((c) => (
              <th key={c.key}>{c.title}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ title, row }) => (
            <tr key={title}>
              <th scope="row" className="w-36 align-top">
                {title}
              </th>
              {COLUMNS.map((c) => (
                <td key={c.key} className="w-[22%] align-top">
                  <div className="font-semibold" style={{ color: COLOUR[row[c.key].answer] }}>
                    {row[c.key].answer}
                  </div>
                  <div className="quiet text-[0.86rem] leading-snug">{row[c.key].reason}</div>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** The loaders that firmware finds, each with the name that its signature carries; the signature is not verified here. */
export function Loaders({ loaders }: { loaders: Inspection["loaders"] }) {
  const read = loaders.filter((l) => l.arch !== null);
  if (read.length === 0) return null;
  return (
    <ul aria-label="Loaders">
      {read.map((l) => (
        <li key={`${l.where} ${l.path}`}>
          <span className="value">{l.path}</span>{" "}
          <span className="quiet">
            for {l.arch}, {l.where}:
          </span>{" "}
          {l.signed === null
            ? "signature not read: inspect the image again"
            : l.signed
              ? `signed as ${l.signer ?? "(signer name unreadable)"}`
              : "not signed"}
          {l.signed && <span className="quiet"> (name only; the signature is not verified)</span>}
        </li>
      ))}
    </ul>
  );
}
