import type { Bytes } from "../../binary";

export const ARCHITECTURES = ["x64", "ia32", "aa64", "arm", "riscv64"] as const;
export type LoaderArch = (typeof ARCHITECTURES)[number];

/** Machine numbers of the PE/COFF header ("machine types" of the format that UEFI 2.10, 2.1.1, asks for). */
const MACHINES: Record<number, LoaderArch> = {
  0x8664: "x64",
  0x14c: "ia32",
  0xaa64: "aa64",
  0x1c0: "arm",
  0x1c2: "arm",
  0x5064: "riscv64",
};

/** For which processor an EFI program is, from its first bytes; null when it is none. */
export function peMachine(bytes: Bytes): LoaderArch | null {
  if (!bytes.starts(0, "MZ")) return null;
  const header = bytes.u32(60);
  return bytes.starts(header, "PE\0\0") ? (MACHINES[bytes.u16(header + 4)] ?? null) : null;
}

/** How long a program is by the sections that its header names (PE/COFF, 4); 0 where there is no such header. */
export function peBytes(head: Bytes): number {
  const pe = head.u32(60);
  if (!head.starts(0, "MZ") || !head.starts(pe, "PE\0\0")) return 0;
  const table = pe + 24 + head.u16(pe + 20);
  const count = head.u16(pe + 6);
  let end = 0;
  for (let i = 0; i < count && head.has(table + 40 * i, 40); i += 1) {
    const [length, start] = [head.u32(table + 40 * i + 16), head.u32(table + 40 * i + 20)];
    if (start > 0 && length > 0) end = Math.max(end, start + length);
  }
  return end;
}

/** Name of the loader that firmware takes from removable media, by architecture (UEFI specification, 3.5.1.1). */
export const removableLoader = (path: string): LoaderArch | null => {
  const name = /^EFI\/BOOT\/BOOT(X64|IA32|AA64|ARM|RISCV64)\.EFI$/i.exec(path)?.[1]?.toLowerCase();
  return ARCHITECTURES.find((a) => a === name) ?? null;
};
