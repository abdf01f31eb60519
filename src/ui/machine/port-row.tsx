import type { Port } from "@/core/machine";

/** Ports as sockets in their order, link told by a filled tab and a word. */
export function PortRow({ ports }: { ports: Port[] }) {
  return (
    <ul className="flex flex-wrap gap-x-6 gap-y-3">
      {ports.map((p) => (
        <li key={p.mac} className="flex gap-2.5">
          <svg
            viewBox="0 0 30 30"
            width="34"
            height="34"
            role="img"
            aria-label={`link ${p.link}`}
            fill="none"
            stroke="currentColor"
            strokeWidth="1.5"
          >
            {p.kind === "wireless" ? (
              <path d="M15 27 V13 M8 9 a10 10 0 0 1 14 0 M5 5 a14.5 14.5 0 0 1 20 0" />
            ) : (
              <>
                <rect x="2" y="2" width="26" height="26" />
                <path d="M7 21 V9 H11 V6 H19 V9 H23 V21 Z" fill={p.link === "up" ? "currentColor" : "none"} />
              </>
            )}
          </svg>
          <div className="leading-snug">
            <div>
              <span className="font-medium">{p.seenAs}</span>{" "}
              <span className="quiet">
                link {p.link}
                {p.kind === "wireless" ? ", wireless" : ""}
              </span>
            </div>
            <div className="value">{p.mac}</div>
            <div className="value quiet text-[0.86rem]">
              {[
                p.pci,
                ...p.addresses
                  .filter((a) => a.scope === "global")
                  .map((a) => `${a.address}/${a.prefixLength}`),
              ]
                .filter(Boolean)
                .join("  ")}
            </div>
          </div>
        </li>
      ))}
    </ul>
  );
}
