import { loaders, type BootPlan } from "./clients";

const HEAD = (plan: BootPlan): string[] => [
  "# Network boot configuration, written by Derrick.",
  "# iPXE is matched first, otherwise it would load itself in a loop; other clients get an iPXE for their architecture.",
  ...loaders(plan).map(({ words, at, by }) => `# ${words}: ${at}, by ${by}`),
];

/** Lines for a dnsmasq that gives out addresses itself. */
export function dnsmasqBoot(plan: BootPlan): string {
  const all = loaders(plan);
  return [
    ...HEAD(plan),
    "enable-tftp",
    `tftp-root=${plan.folder}`,
    "dhcp-match=set:ipxe,175",
    "dhcp-userclass=set:ipxe,iPXE",
    ...all.flatMap(({ tag, codes }) =>
      codes.map((code) => `dhcp-match=set:${tag},option:client-arch,${code}`),
    ),
    `dhcp-boot=tag:ipxe,${plan.script}`,
    ...all.map(
      ({ tag, at }) => `dhcp-boot=tag:!ipxe,tag:${tag},${at}${at.includes("://") ? "" : `,,${plan.tftp}`}`,
    ),
    // Without it firmware that boots over HTTP takes the answer for somebody else's.
    ...all
      .filter((c) => c.by === "HTTP")
      .map(({ tag }) => `dhcp-option-force=tag:!ipxe,tag:${tag},60,HTTPClient`),
    "",
  ].join("\n");
}

/** What dnsmasq calls an architecture in a line for firmware that asks a second server. */
const SERVICES: Readonly<Record<string, string[]>> = {
  bios: ["x86PC"],
  ia32: ["IA32_EFI"],
  x64: ["X86-64_EFI", "BC_EFI"],
  arm64: ["ARM64_EFI"],
};

/** Lines for a dnsmasq beside another server, which keeps giving out the addresses of these networks. */
export function dnsmasqProxy(plan: BootPlan, networks: readonly string[]): string {
  return [
    ...HEAD({ ...plan, http: null }),
    "# The other DHCP server of the network assigns addresses; this one does not.",
    "port=0",
    ...networks.map((network) => `dhcp-range=${network},proxy`),
    "enable-tftp",
    `tftp-root=${plan.folder}`,
    "dhcp-match=set:ipxe,175",
    "dhcp-userclass=set:ipxe,iPXE",
    `dhcp-boot=tag:ipxe,${plan.script}`,
    ...loaders({ ...plan, http: null }).flatMap(({ tag, at }) =>
      (SERVICES[tag] ?? []).map((name) => `pxe-service=tag:!ipxe,${name},"Network",${at}`),
    ),
    "",
  ].join("\n");
}

const code = (n: number): string => `0x${n.toString(16).padStart(4, "0")}`;

/** Client classes for the IPv4 part of a Kea configuration. */
export function keaBoot(plan: BootPlan): object {
  return {
    "client-classes": [
      {
        name: "ipxe",
        test: "substring(option[77].hex,0,4) == 'iPXE'",
        "boot-file-name": plan.script,
      },
      ...loaders(plan).map(({ tag, codes, at, by }) => ({
        name: `boot-${tag}`,
        test: `(${codes.map((n) => `option[93].hex == ${code(n)}`).join(" or ")}) and not member('ipxe')`,
        "boot-file-name": at,
        ...(by === "TFTP"
          ? { "next-server": plan.tftp }
          : {
              "option-data": [{ name: "vendor-class-identifier", data: "HTTPClient", "always-send": true }],
            }),
      })),
    ],
  };
}

const bytes = (n: number): string =>
  `${(n >> 8).toString(16).padStart(2, "0")}:${(n & 255).toString(16).padStart(2, "0")}`;

/** Lines in the syntax of the older DHCP server of the ISC, for its whole file or for one network of it. */
export function iscBoot(plan: BootPlan): string {
  const of = ({ codes, at, by }: ReturnType<typeof loaders>[number]): string[] => [
    `} elsif ${codes.map((n) => `option client-arch = ${bytes(n)}`).join(" or ")} {`,
    `  filename "${at}";`,
    by === "TFTP" ? `  next-server ${plan.tftp};` : '  option vendor-class-identifier "HTTPClient";',
  ];
  return [
    ...HEAD(plan),
    "option client-arch code 93 = string;",
    'if exists user-class and substring(option user-class, 0, 4) = "iPXE" {',
    `  filename "${plan.script}";`,
    ...loaders(plan).flatMap(of),
    "}",
    "",
  ].join("\n");
}
