import type { Profile } from "../image";
import { netmaskOf, type LinkPlan } from "../network";

/** Addresses under which one armed machine finds its files. */
export interface BootAddresses {
  /** Of its answer files, with a slash at the end. */
  answers: string;
  /** Of the tree inside the image, with a slash at the end. */
  tree: string;
  /** Of the image itself. */
  image: string;
}

export interface BootHost {
  mac: string;
  hostName: string;
  domain: string;
  /** The interface that carries the planned address; null where none is planned. */
  link: LinkPlan | null;
}

/**
 * The address of a port in the words of an installer whose questions about the network come before it can read its file. A word
 * with a blank in it is one word to the kernel; the boot loaders write it each in their own way. What is made on a port (a bond,
 * a VLAN, a bridge) is no part of these words.
 */
function fixedAddress({ link, mac }: BootHost): string[] {
  if (link?.kind !== "port" || link.mac.toLowerCase() !== mac.toLowerCase()) return [];
  if (link.address?.how !== "fixed") return [];
  const { address, length, gateway, nameServers } = link.address;
  const isV6 = address.includes(":");
  return [
    "netcfg/disable_autoconfig=true",
    `netcfg/get_ipaddress=${address}${isV6 ? `/${length}` : ""}`,
    ...(isV6 ? [] : [`netcfg/get_netmask=${netmaskOf(length)}`]),
    gateway ? `netcfg/get_gateway=${gateway}` : "netcfg/no_default_route=true",
    ...(nameServers.length > 0 ? [`netcfg/get_nameservers=${nameServers.join(" ")}`] : []),
    "netcfg/confirm_static=true",
  ];
}

/** The names under which each kind of installer asks for what it is answered with; a seed's are fixed. */
export const answerNames = (format: Profile["answerFile"], files: readonly string[]): string[] =>
  format === "cloud-config" ? ["user-data", "meta-data", "vendor-data"] : [...files];

/**
 * The kernel's command line for a kind of answer file: where the file is, and what is asked before it can be read. Null for a
 * kind that is given in no such way. Words of the profile follow; they may name {answers.url}, {tree.url}, {image.url}.
 */
export function kernelWords(
  format: Profile["answerFile"],
  answers: readonly string[],
  at: BootAddresses,
  host: BootHost,
  own: readonly string[],
): string[] | null {
  const { mac, hostName, domain } = host;
  const boot = `BOOTIF=01-${mac.toLowerCase().replaceAll(":", "-")}`;
  const main = `${at.answers}${answers[0] ?? ""}`;
  const standard: Partial<Record<Profile["answerFile"], string[]>> = {
    kickstart: [`inst.ks=${main}`, `inst.stage2=${at.tree}`, "ip=dhcp", boot],
    preseed: [
      ...["auto=true", "priority=critical", `url=${main}`, "interface=auto", boot],
      ...[`hostname=${hostName}`, `domain=${domain}`, ...fixedAddress(host)],
    ],
    "cloud-config": [
      ...["autoinstall", "ip=dhcp", `url=${at.image}`, `ds=nocloud-net;s=${at.answers}`],
      // Without this word the whole image would be fetched once more, as if it were a configuration.
      ...["cloud-config-url=/dev/null", boot],
    ],
  };
  const words = standard[format] ?? (own.length > 0 ? [] : null);
  const urls: Readonly<Record<string, string>> = {
    ...{ "{answers.url}": main, "{tree.url}": at.tree, "{image.url}": at.image },
    "{host.mac}": mac,
  };
  return (
    words && [...words, ...own.map((word) => word.replace(/\{[a-z.]+\}/g, (name) => urls[name] ?? name))]
  );
}

/** Under this name an installer of the kind of Debian's looks in its initial file system for its answers. */
export const PACKED_NAME = "preseed.cfg";

/**
 * The kernel's words for an installer that finds its answers in its initial file system, because it would believe no certificate;
 * null where it reads something else from an address of the boot service.
 */
export function packedWords(words: readonly string[]): string[] | null {
  const left = words.filter((word) => !word.startsWith("url={answers.at}"));
  return left.length === words.length || left.some((word) => /\{\w+\.at\}/.test(word)) ? null : left;
}
