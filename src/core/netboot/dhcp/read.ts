import { parseJson } from "../../text";

/** What a configuration gives to which clients; no codes where it asks for none. */
export interface Given {
  line: number;
  codes: number[];
  /** It is given to iPXE, to all but iPXE, or without asking for it (null). */
  toIpxe: boolean | null;
  file: string;
}

/** The boot files of one configuration, and whether it gives out addresses. */
export interface BootReading {
  format: "dnsmasq" | "Kea" | "ISC syntax";
  given: Given[];
  /** Whether it asks anywhere whether an iPXE is asking. */
  knowsIpxe: boolean;
  givesAddresses: boolean;
}

const IPXE = /ipxe/i;
const lineOf = (text: string, offset: number): number => text.slice(0, offset).split("\n").length;

/** What dnsmasq calls an architecture in a line for a second server. */
const SERVICES: Readonly<Record<string, number[]>> = {
  ...{ x86pc: [0], ia32_efi: [6], "x86-64_efi": [7, 9], bc_efi: [7], arm64_efi: [11] },
};

function readDnsmasq(text: string): BootReading {
  const tags = new Map<string, number[]>();
  const ipxeTags = new Set<string>();
  const given: Given[] = [];
  let givesAddresses = false;
  const lines = text.split("\n").map((l) =>
    l
      .replace(/(^|\s)#.*$/, "")
      .replace(/^\s*(--)?/, "")
      .trim(),
  );
  const settings = lines.flatMap((own, i) => {
    const [, name = "", value = ""] = /^([a-z\d-]+)\s*=\s*(.*)$/.exec(own) ?? [];
    const parts = value.split(",").map((p) => p.trim());
    const named = (prefix: RegExp): string[] => parts.flatMap((p) => prefix.exec(p)?.[1] ?? []);
    return name
      ? [{ line: i + 1, name, value, parts, set: named(/^set:(.+)$/)[0] ?? "", tag: named(/^tag:(.+)$/) }]
      : [];
  });
  for (const { name, value, parts, set } of settings) {
    const [, arch] = /client-arch,(\d+)$/.exec(value) ?? /PXEClient:Arch:0*(\d+)/.exec(value) ?? [];
    if (set && arch) tags.set(set, [...(tags.get(set) ?? []), Number(arch)]);
    if (
      set &&
      (IPXE.test(value.replace(/^set:[^,]*,/, "")) || (name === "dhcp-match" && /(,|:)175(,|$)/.test(value)))
    )
      ipxeTags.add(set);
    if (name === "dhcp-range" && !parts.includes("proxy")) givesAddresses = true;
  }
  for (const { line, name, parts, tag } of settings) {
    const own = parts.filter((p) => !/^(tag|set|net|id):/.test(p));
    const file = (name === "dhcp-boot" ? own[0] : name === "pxe-service" ? own[2] : "") ?? "";
    if (file === "" || /^\d+$/.test(file)) continue;
    const wanted = tag.filter((t) => !t.startsWith("!"));
    const codes =
      name === "pxe-service"
        ? (SERVICES[(own[0] ?? "").toLowerCase()] ?? [])
        : wanted.flatMap((t) => tags.get(t) ?? []);
    const isIpxe = wanted.some((t) => ipxeTags.has(t));
    const isOther = tag.some((t) => t.startsWith("!") && ipxeTags.has(t.slice(1)));
    given.push({ line, file, codes, toIpxe: isIpxe ? true : isOther ? false : null });
  }
  return { format: "dnsmasq", given, knowsIpxe: ipxeTags.size > 0, givesAddresses };
}

/** Comments of Kea go to the end of a line, or from one sign to another; a quoted text holds none. */
const withoutComments = (text: string): string =>
  text.replace(/"(?:\\.|[^"\\])*"|#[^\n]*|\/\/[^\n]*|\/\*[^]*?\*\//g, (part) =>
    part.startsWith('"') ? part : part.replace(/[^\n]/g, " "),
  );

function readKea(text: string): BootReading {
  const read = parseJson(withoutComments(text));
  const given: Given[] = [];
  let knowsIpxe = false;
  let from = 0;
  const walk = (value: unknown): void => {
    if (Array.isArray(value)) return value.forEach(walk);
    if (typeof value !== "object" || value === null) return;
    const own = value as Record<string, unknown>;
    const [test, file] = [String(own.test ?? ""), own["boot-file-name"]];
    const asks = test.replace(/not\s+member\('[^']*'\)/g, "");
    if (IPXE.test(asks)) knowsIpxe = true;
    if (typeof file === "string" && file !== "") {
      const at = text.indexOf(`"${file}"`, from);
      from = Math.max(from, at + 1);
      const codes = [...test.matchAll(/option\[93\]\.hex\s*==\s*0x([0-9a-f]+)/gi)].map((m) =>
        Number.parseInt(m[1] ?? "", 16),
      );
      const toIpxe = IPXE.test(asks) ? true : /not\s+member\('[^']*ipxe[^']*'\)/i.test(test) ? false : null;
      given.push({ line: lineOf(text, Math.max(0, at)), file, codes, toIpxe });
    }
    Object.values(own).forEach(walk);
  };
  if (read.ok) walk(read.value);
  return { format: "Kea", given, knowsIpxe, givesAddresses: /"pools"\s*:\s*\[\s*\{/.test(text) };
}

function readIsc(text: string): BootReading {
  const clean = text.replace(/#[^\n]*/g, (c) => " ".repeat(c.length));
  const given: Given[] = [];
  let [condition, knowsIpxe, inIf] = ["", false, false];
  for (const m of clean.matchAll(/\b(?:els)?if\s+([^{]*)\{|\belse\s*\{|\bfilename\s+"([^"]*)"\s*;|\}/g)) {
    const [whole, asked, file] = m;
    if (asked !== undefined) [condition, inIf] = [asked, true];
    else if (/^else/.test(whole)) [condition, inIf] = ["", true];
    else if (whole === "}") [condition, inIf] = ["", false];
    else if (file !== undefined) {
      const codes = [...condition.matchAll(/=\s*(?:00:([0-9a-f]{2})|(\d+))/gi)].map(([, hex, n]) =>
        hex ? Number.parseInt(hex, 16) : Number(n),
      );
      const toIpxe = IPXE.test(condition) ? true : inIf && knowsIpxe ? false : null;
      given.push({ line: lineOf(clean, m.index), file, codes, toIpxe });
    }
    if (IPXE.test(condition)) knowsIpxe = true;
  }
  return { format: "ISC syntax", given, knowsIpxe, givesAddresses: /\brange\s+[\d.a-f:]+/i.test(clean) };
}

/** Reads what a DHCP server is configured to give for starting over the network; null for a text of another kind. */
export function readBootConfig(text: string): BootReading | null {
  if (/^\s*(#|\/\/|\{)/.test(text) && /"(Dhcp4|client-classes|subnet4)"/.test(text)) return readKea(text);
  if (/^\s*(--)?(dhcp-[a-z]+|pxe-service|enable-tftp)\b/m.test(text)) return readDnsmasq(text);
  if (/\b(subnet\s+[\d.]+\s+netmask|filename\s+"|option\s+[\w-]+\s+code)/.test(text)) return readIsc(text);
  return null;
}
