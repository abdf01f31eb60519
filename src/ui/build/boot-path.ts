import { MEDIUM, type MomentView, type Try } from "@/core/boot";
import type { Sheet, SheetChanges } from "@/core/sheet";

/** One stop of a path: a device, or several in a row that end in the same way. */
export interface Station {
  devices: string[];
  name: string;
  outcome: Try["outcome"] | "not reached";
  why: string | null;
  seconds: number;
  once: boolean;
}

/** From this many equal tries in a row on, they are drawn as one. */
const JOINED = 3;
const JOINED_REST = 3;

const stationOf = (t: Try): Station => ({
  ...{ devices: t.device ? [t.device] : [], name: t.name, outcome: t.outcome, why: t.why },
  ...{ seconds: t.seconds, once: t.via === "once" },
});

/** The stops of a moment in the order of the firmware: what is tried, then what is not reached any more. */
export function stationsOf({ tries, rest }: MomentView): Station[] {
  const runs: Try[][] = [];
  for (const t of tries) {
    const run = runs.at(-1);
    if (run && run[0]!.reason !== null && run[0]!.reason === t.reason) run.push(t);
    else runs.push([t]);
  }
  const tried = runs.flatMap((run) =>
    run.length < JOINED
      ? run.map(stationOf)
      : [
          {
            ...stationOf(run[0]!),
            devices: run.flatMap((t) => t.device ?? []),
            name: `${run.length} devices`,
          },
        ],
  );
  const untried = (devices: MomentView["rest"], name: string): Station => ({
    ...{
      devices: devices.map((d) => d.device),
      name,
      outcome: "not reached",
      why: null,
      seconds: 0,
      once: false,
    },
  });
  const shown = rest.length > JOINED_REST ? rest.slice(0, JOINED_REST - 1) : rest;
  const hidden = rest.slice(shown.length);
  return [
    ...tried,
    ...shown.map((d) => untried([d], d.name)),
    ...(hidden.length > 0 ? [untried(hidden, `${hidden.length} more`)] : []),
  ];
}

/** The devices of the permanent order as the picture shows them. */
export const orderOf = ({ tries, rest }: MomentView): string[] => [
  ...new Set([
    ...tries.filter((t) => t.via === "order").flatMap((t) => t.device ?? []),
    ...rest.map((r) => r.device),
  ]),
];

/** A device is put before or behind its neighbour in the permanent order; null where there is none on that side. */
export function moved(moment: MomentView, device: string, by: -1 | 1): SheetChanges | null {
  const order = orderOf(moment);
  const at = order.indexOf(device);
  const to = at + by;
  if (at === -1 || to < 0 || to >= order.length) return null;
  const next = order.toSpliced(at, 1).toSpliced(to, 0, device);
  return ordered(next);
}

/** The permanent order begins with a device, or has it in front of another. */
export function droppedOn(moment: MomentView, device: string, target: string): SheetChanges | null {
  const order = orderOf(moment).filter((d) => d !== device);
  const to = order.indexOf(target);
  return device === target || to === -1 ? null : ordered(order.toSpliced(to, 0, device));
}

/** A medium in the first place of the permanent order is started every time, and not once. */
const ordered = (order: string[]): SheetChanges => ({
  "boot.order": order,
  "boot.start": order[0] === MEDIUM ? "media first in the boot order" : "one-time boot",
});

const NEXT_SECURE = { on: "off to install", "off to install": "off", off: "on" } as const;

const WAYS = ["virtual media", "stick", "disc", "network"] as const;

/** What a letter changes while the picture has the focus; null for letters that change nothing. */
export function changeBy(key: string, { boot, image }: Sheet): SheetChanges | null {
  switch (key.toLowerCase()) {
    case "o":
      return boot.start === "one-time boot"
        ? { "boot.start": "media first in the boot order" }
        : { "boot.start": "one-time boot", "boot.order": boot.order.filter((d) => d !== MEDIUM) };
    case "l":
      return { "boot.mode": boot.mode === "uefi" ? "legacy" : "uefi" };
    case "s":
      return { "boot.secureBoot": NEXT_SECURE[boot.secureBoot] };
    case "w":
      return { "image.way": WAYS[(WAYS.indexOf(image.way) + 1) % WAYS.length]! };
    default:
      return null;
  }
}
