"use client";

import { useState } from "react";
import { standing, type BenchCandidate } from "@/core/storage";
import { Size } from "../frame/person";

type Layout = BenchCandidate["layout"];

const STATES = {
  whole: "Healthy.",
  degraded: "Degraded: all data is readable.",
  lost: "Failed: data is lost.",
} as const;

const numbered = (drive: number): string => String(drive + 1);

interface Props {
  layout: Layout;
  sizes: readonly number[];
  /** What a drive is called: its bay where it has one, else its number in the list. */
  nameOf?: (drive: number) => string;
  /** Drives that do not do their part now. */
  lost?: readonly number[];
}

/** The drives in their groups; each can be failed and mended, by mouse or by keys. */
export function Bays({ layout, sizes, nameOf = numbered, lost = [] }: Props) {
  const [failed, setFailed] = useState<ReadonlySet<number>>(new Set(lost));
  const { state, mustStay } = standing(layout, failed);
  const toggle = (drive: number): void => {
    const next = new Set(failed);
    if (!next.delete(drive)) next.add(drive);
    setFailed(next);
  };
  // What a group of drives is called by those who use each kind.
  const part = layout.kind.school === "ZFS" ? "vdev" : layout.kind.school === "md" ? "array" : "span";
  const tile = (drive: number) => (
    <DriveTile
      key={drive}
      {...{
        name: nameOf(drive),
        bytes: sizes[drive]!,
        isFailed: failed.has(drive),
        wasLost: lost.includes(drive),
        mustStay: mustStay.includes(drive),
      }}
      press={() => toggle(drive)}
    />
  );
  return (
    <>
      <div className="flex flex-wrap gap-x-5 gap-y-3">
        {layout.groups.map((group, i) => (
          <Group key={i} title={layout.groups.length > 1 ? `${part} ${i + 1}` : "drives"}>
            {group.map(tile)}
          </Group>
        ))}
        {layout.spares.length > 0 && (
          <Group title="hot spare">
            {layout.spares.map((d) => (
              <Quiet key={d} name={nameOf(d)} bytes={sizes[d]!} />
            ))}
          </Group>
        )}
        {layout.left.length > 0 && (
          <Group title="unused">
            {layout.left.map((d) => (
              <Quiet key={d} name={nameOf(d)} bytes={sizes[d]!} />
            ))}
          </Group>
        )}
      </div>
      <p
        role="status"
        className={`mt-2 ${state === "lost" ? "font-semibold text-error" : ""}`}
        data-standing={state}
      >
        {STATES[state]}
        {state !== "lost" &&
          mustStay.length > 0 &&
          ` Data is lost if one of these also fails: ${mustStay.map(nameOf).join(", ")}. Do not remove them.`}
      </p>
    </>
  );
}

const Group = ({ title, children }: { title: string; children: React.ReactNode }) => (
  <div>
    <div className="label">{title}</div>
    <div className="flex flex-wrap gap-1">{children}</div>
  </div>
);

const BOX =
  "flex min-h-20 w-[6.4rem] flex-col items-start border px-1.5 py-1 text-left text-[0.82rem] leading-tight";

const Quiet = ({ name, bytes }: { name: string; bytes: number }) => (
  <div className={`${BOX} dotted-fill border-base-300`}>
    <span className="bg-base-100">
      <b>{name}</b>
      <span className="value block">
        <Size bytes={bytes} />
      </span>
    </span>
  </div>
);

interface TileProps {
  name: string;
  bytes: number;
  isFailed: boolean;
  /** It does not do its part now, as its own tool told. */
  wasLost: boolean;
  mustStay: boolean;
  press: () => void;
}

/** A drive: failed ones are hatched and say so, those that must stay are framed heavily. */
function DriveTile({ name, bytes, isFailed, wasLost, mustStay, press }: TileProps) {
  const word = isFailed ? (wasLost ? "failing" : "failed") : mustStay ? "do not pull" : "";
  return (
    <button
      type="button"
      aria-pressed={isFailed}
      aria-label={`Drive ${name}${word ? `, ${word}` : ""}`}
      className={`${BOX} ${isFailed ? "hatched border-error" : mustStay ? "border-2 border-base-content" : "border-base-content"}`}
      onClick={press}
    >
      <b>{name}</b>
      {/* In both units where a person wants them so: one below the other. */}
      <span className={`value ${isFailed ? "bg-base-100" : ""}`}>
        <Size bytes={bytes} />
      </span>
      <span className={`mt-auto font-semibold whitespace-nowrap ${isFailed ? "bg-base-100 text-error" : ""}`}>
        {word}
      </span>
    </button>
  );
}
