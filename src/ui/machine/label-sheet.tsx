import type { Label } from "@/core/machine";

/** Labels to cut out, black on white, in the measure of paper. */
export const LabelSheet = ({ labels }: { labels: readonly Label[] }) => (
  <ul className="grid grid-cols-[repeat(auto-fill,60mm)] gap-[2mm] bg-white text-black print:text-black">
    {labels.map((label, i) => (
      <li
        key={i}
        className="flex min-h-[24mm] w-[60mm] flex-col justify-center border border-dashed border-black px-[3mm] py-[1.5mm] break-inside-avoid"
      >
        <span className="value text-[12pt] leading-tight font-semibold break-words">{label.title}</span>
        {label.lines.map((line) => (
          <span key={line} className="value text-[8.5pt] leading-snug break-words">
            {line}
          </span>
        ))}
      </li>
    ))}
  </ul>
);
