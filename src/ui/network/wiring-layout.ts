import { endKey, portNames, type Cable, type CableEnd, type Device } from "@/core/network";
import type { WiredMachine } from "@/core/site";

/** One port of the drawing, in its units; `x` and `y` are its middle, and its cable leaves towards `leaves`. */
export interface PlacedPort {
  end: CableEnd;
  name: string;
  x: number;
  y: number;
  leaves: "right" | "up" | "down";
}

/** A machine or a thing with its ports in a box of the drawing. */
export interface PlacedBox {
  key: string;
  name: string;
  what: string;
  x: number;
  y: number;
  height: number;
  ports: PlacedPort[];
}

export interface WiringLayout {
  width: number;
  height: number;
  boxes: PlacedBox[];
  at: ReadonlyMap<string, PlacedPort>;
}

export const PORT = 17;
const WIDTH = 1000;
const RIGHT = 560;
const STEP = 24;
const MACHINE_RIGHT = 190;
const TITLE = 22;
const ROW = 21;
const GAP = 30;

/** Up to so many ports stand in one row; more stand in two, odd above even, as at the front of a switch. */
const ONE_ROW = 8;
const MOST_COLUMNS = 18;

/** Things stand right. Cables come to the upper row from above and to the lower one from below. */
function deviceBox(device: Device, y: number): PlacedBox {
  const names = portNames(device);
  const rows = names.length > ONE_ROW ? 2 : 1;
  const band = MOST_COLUMNS * rows;
  const placed = names.map((name, i): PlacedPort => {
    const [inBand, above] = [i % band, Math.floor(i / band)];
    const row = inBand % rows;
    return {
      ...{ end: { device: device.id, port: name }, name },
      x: RIGHT + PORT / 2 + Math.floor(inBand / rows) * STEP,
      y: y + TITLE + PORT / 2 + (above * rows + row) * ROW,
      leaves: row === 0 ? "up" : "down",
    };
  });
  const lines = Math.max(1, Math.ceil(names.length / band) * rows);
  return {
    ...{ key: device.id, name: device.name, x: RIGHT, y, ports: placed, height: TITLE + lines * ROW },
    what: [device.kind, device.place].filter(Boolean).join(", "),
  };
}

/** Machines stand left, their ports one below the other, so that no cable crosses a name. */
const machineBox = ({ name, ports }: WiredMachine, y: number): PlacedBox => ({
  ...{ key: `machine ${name}`, name, what: "", x: 0, y, height: TITLE + Math.max(1, ports.length) * ROW },
  ports: ports.map(({ mac, seenAs }, i) => ({
    ...{ end: { mac }, name: seenAs, x: MACHINE_RIGHT, leaves: "right" },
    y: y + TITLE + PORT / 2 + i * ROW,
  })),
});

function stacked<T>(
  all: readonly T[],
  gap: number,
  place: (one: T, y: number) => PlacedBox,
): { boxes: PlacedBox[]; end: number } {
  const boxes: PlacedBox[] = [];
  let y = 0;
  for (const one of all) {
    const box = place(one, y);
    boxes.push(box);
    y += box.height + gap;
  }
  return { boxes, end: y };
}

/** Where everything stands: machines left, things right, from top to bottom in the order that they are given in. */
export function layWiring(machines: readonly WiredMachine[], devices: readonly Device[]): WiringLayout {
  const left = stacked(machines, GAP / 3, machineBox);
  const right = stacked(devices, GAP, deviceBox);
  const boxes = [...left.boxes, ...right.boxes];
  return {
    ...{ width: WIDTH, height: Math.max(left.end, right.end, 40), boxes },
    at: new Map(boxes.flatMap((b) => b.ports.map((p) => [endKey(p.end), p] as const))),
  };
}

/** The edge of a port at which its cable begins, and the point that draws the cable out of it, towards `out`. */
function edge({ x, y, leaves }: PlacedPort, out: number): { at: string; pull: string } {
  const half = PORT / 2;
  if (leaves === "right") return { at: `${x + half} ${y}`, pull: `${out} ${y}` };
  const down = leaves === "down" ? 1 : -1;
  return { at: `${x} ${y + down * half}`, pull: `${out} ${y + down * (half + 24)}` };
}

/** Ports beyond this stand nearer to the right end of a switch of 24. */
const MIDDLE = RIGHT + 6 * STEP;

/** The line of a cable as an SVG path; null where one of its ends is not in the drawing. */
export function cablePath(layout: WiringLayout, { a, b }: Cable): string | null {
  const [from, to] = [layout.at.get(endKey(a)), layout.at.get(endKey(b))];
  if (!from || !to) return null;
  const path = (outs: readonly [number, number]): string => {
    const [one, other] = [edge(from, outs[0]), edge(to, outs[1])];
    return `M${one.at} C${one.pull} ${other.pull} ${other.at}`;
  };
  // Between two things a cable goes round at the side that is nearer to its ports, and not through what stands between them.
  if (from.x >= RIGHT && to.x >= RIGHT) {
    const far = 60 + Math.abs(to.y - from.y) / 4;
    const isRight = from.x > MIDDLE && to.x > MIDDLE;
    const out = isRight ? Math.max(from.x, to.x) + far : RIGHT - far;
    return path([out, out]);
  }
  const across = MACHINE_RIGHT + Math.max(60, Math.abs(to.x - from.x) * 0.45);
  const out = (p: PlacedPort): number => (p.leaves === "right" ? across : p.x - 24);
  return path([out(from), out(to)]);
}
