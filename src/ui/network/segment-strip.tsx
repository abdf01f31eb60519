import type { SegmentStretch } from "@/core/network";

export const FILL: Record<SegmentStretch["use"], string> = {
  edge: "",
  gateway: "bg-current",
  pool: "hatched",
  reserved: "dotted-fill",
  taken: "bg-current",
  free: "",
};

/** An IPv4 address as a number; -1 for any other text. */
export const ipv4Number = (address: string | null): number =>
  address !== null && /^\d+(\.\d+){3}$/.test(address)
    ? address.split(".").reduce((n, part) => n * 256 + Number(part), 0)
    : -1;

const holds = (s: SegmentStretch, mark: string | null): boolean => {
  const at = ipv4Number(mark);
  return at >= ipv4Number(s.from) && at <= ipv4Number(s.to);
};

/** The strip as a person would read it out, from the first address to the last. */
export function stripWords(stretches: readonly SegmentStretch[], mark: string | null): string {
  const used = stretches
    .filter((s) => s.use !== "free")
    .map((s) => `${s.what} ${s.from}${s.count > 1 ? ` to ${s.to}` : ""}`);
  return `Addresses ${stretches[0]?.from} to ${stretches.at(-1)?.to}: ${used.join("; ")}; the rest is free${mark ? `; this build uses ${mark}` : ""}`;
}

/** Short stretches are widened so that they can be seen. */
const weight = (s: SegmentStretch): number => Math.max(s.count, s.use === "free" || s.use === "pool" ? 4 : 2);

/** The stretches of a segment side by side, with a notch at one address. */
export function Stretches({
  stretches,
  mark,
  onPick,
}: {
  stretches: readonly SegmentStretch[];
  mark: string | null;
  /** What a click inside a stretch means: the stretch, and how far along it, from 0 to 1. */
  onPick?: (stretch: SegmentStretch, along: number) => void;
}) {
  return stretches.map((s) => (
    <div
      key={s.from}
      title={`${s.from}${s.count > 1 ? ` – ${s.to}` : ""}: ${s.what}`}
      className={`relative h-full ${FILL[s.use]}`}
      style={{
        flexGrow: weight(s),
        flexBasis: 0,
        opacity: s.use === "taken" || s.use === "gateway" ? 0.75 : 1,
      }}
      onClick={(e) => {
        const { left, width } = e.currentTarget.getBoundingClientRect();
        onPick?.(s, width > 0 ? (e.clientX - left) / width : 0);
      }}
    >
      {holds(s, mark) && (
        <span
          className="absolute -top-1 h-8 w-0.5 bg-error"
          style={{
            left: `${((ipv4Number(mark) - ipv4Number(s.from) + 0.5) / s.count) * 100}%`,
          }}
        />
      )}
    </div>
  ));
}

/** What the fillings of a strip mean. */
export const StripLegend = ({ mark }: { mark: string | null }) => (
  <div className="quiet mt-1 flex flex-wrap gap-x-4 text-[0.86rem]">
    <Sample look="bg-current opacity-75">in use</Sample>
    <Sample look="hatched border">DHCP range</Sample>
    <Sample look="dotted-fill border">reserved</Sample>
    <Sample look="border">free</Sample>
    {mark && (
      <span className="flex items-center gap-1">
        <i className="inline-block h-3 w-0.5 bg-error" /> {mark}
      </span>
    )}
  </div>
);

const Sample = ({ look, children }: { look: string; children: string }) => (
  <span className="flex items-center gap-1">
    <i className={`inline-block h-3 w-4 ${look}`} /> {children}
  </span>
);

/** A segment as one strip from its first to its last address. */
export function SegmentStrip({ stretches, mark }: { stretches: SegmentStretch[]; mark: string | null }) {
  const marked = stretches.some((s) => holds(s, mark)) ? mark : null;
  return (
    <figure>
      <figcaption className="label mb-1">
        {stretches[0]?.from} to {stretches.at(-1)?.to}
      </figcaption>
      <div
        className="flex h-6 w-full border border-current"
        role="img"
        aria-label={stripWords(stretches, marked)}
      >
        <Stretches {...{ stretches, mark }} />
      </div>
      <StripLegend mark={mark ? "this build" : null} />
    </figure>
  );
}
