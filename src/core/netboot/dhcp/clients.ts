/** Firmware that asks, by its architecture (RFC 4578, RFC 5970 and the IANA list of option 93). */
export interface BootClient {
  tag: string;
  /** Numbers that firmware of this kind gives itself; some has used more than one. */
  codes: readonly number[];
  words: string;
  /** The boot loader that it can run; it lies on the site's own server, and not in Derrick. */
  file: string;
  by: "TFTP" | "HTTP";
}

/** UEFI is given the iPXE that uses the firmware's own driver: the one with drivers hangs when it leaves for the disk (seen). */
export const BOOT_CLIENTS: readonly BootClient[] = [
  { tag: "bios", codes: [0], words: "PC with BIOS", file: "undionly.kpxe", by: "TFTP" },
  { tag: "ia32", codes: [6], words: "PC with 32-bit UEFI", file: "ipxe-i386.efi", by: "TFTP" },
  { tag: "x64", codes: [7, 9], words: "PC with UEFI", file: "snponly.efi", by: "TFTP" },
  { tag: "arm64", codes: [11], words: "64-bit ARM with UEFI", file: "ipxe-arm64.efi", by: "TFTP" },
  { tag: "x64http", codes: [16], words: "PC with UEFI, booting over HTTP", file: "snponly.efi", by: "HTTP" },
  {
    tag: "arm64http",
    codes: [19],
    words: "64-bit ARM with UEFI, over HTTP",
    file: "ipxe-arm64.efi",
    by: "HTTP",
  },
];

/** What the site's DHCP server is to tell machines that start over the network. */
export interface BootPlan {
  /** The script that every iPXE is pointed at. */
  script: string;
  /** The server with the boot loaders: its address for TFTP, and its folder by HTTP, or null where it has none. */
  tftp: string;
  http: string | null;
  /** The file that PCs with UEFI are given instead of iPXE: a signed loader, for secure boot. */
  signed?: string;
  /** Where its TFTP files lie, for the program that serves both. */
  folder: string;
}

/** The clients that this plan has a loader for, with where it is. */
export const loaders = (plan: BootPlan): (BootClient & { at: string })[] =>
  BOOT_CLIENTS.flatMap((one) => {
    const client = plan.signed && one.tag === "x64" ? { ...one, file: plan.signed } : one;
    if (client.by === "TFTP") return [{ ...client, at: client.file }];
    return plan.http === null ? [] : [{ ...client, at: `${plan.http.replace(/\/$/, "")}/${client.file}` }];
  });
