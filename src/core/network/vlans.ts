import { fail, ok, type Result } from "../result";

/** A list of VLANs as stretches, in order and apart; both ends included. */
export type VlanStretch = readonly [first: number, last: number];

const isVlan = (n: number): boolean => Number.isInteger(n) && n >= 1 && n <= 4094;

/** "10, 20-29" as stretches, put in order and joined where they touch; nothing is an empty list. VLANs go from 1 to 4094. */
export function parseVlans(text: string): Result<VlanStretch[]> {
  const parts = text
    .trim()
    .split(/[\s,;]+/)
    .filter(Boolean);
  const read: VlanStretch[] = [];
  for (const part of parts) {
    const [, first, last] = /^(\d{1,4})(?:-(\d{1,4}))?$/.exec(part) ?? [];
    const stretch: VlanStretch = [Number(first), Number(last ?? first)];
    if (!stretch.every(isVlan) || stretch[0] > stretch[1])
      return fail({
        message: `"${part.slice(0, 40)}" is not a VLAN: enter 1 to 4094, or a range such as 20-29`,
      });
    read.push(stretch);
  }
  return ok(joined(read));
}

function joined(stretches: readonly VlanStretch[]): VlanStretch[] {
  const out: [number, number][] = [];
  for (const [first, last] of [...stretches].sort((a, b) => a[0] - b[0])) {
    const before = out.at(-1);
    if (before && first <= before[1] + 1) before[1] = Math.max(before[1], last);
    else out.push([first, last]);
  }
  return out;
}

export const formatVlans = (stretches: readonly VlanStretch[]): string =>
  stretches.map(([first, last]) => (first === last ? String(first) : `${first}-${last}`)).join(",");

/** True for a list that `parseVlans` reads. */
export const isVlanList = (text: string): boolean => parseVlans(text).ok;

/** Whether a list as it is stored holds a VLAN; false in a list that cannot be read. */
export function holdsVlan(text: string, vlan: number): boolean {
  const read = parseVlans(text);
  return read.ok && read.value.some(([first, last]) => vlan >= first && vlan <= last);
}
