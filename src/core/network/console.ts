import { fillTemplate } from "../text";
import { ADDRESS_KINDS, addressKind } from "./address-kind";
import { linkLocalAddress } from "./eui64";
import { portOf, segmentOf, type PlannedOn } from "./ground";
import { netmaskOf, prefixLengthOf } from "./address";
import { portNamesOf, portNameWords } from "./port-facts";
import { factsOf } from "../machine";

/** One thing that is to be seen after the installation: where, what stands there, and what it means. */
export interface ConsoleLine {
  what: string;
  value: string;
  means: string;
}

/** How a family is managed once it runs; the address is a text of its profile. */
export interface Management {
  address: string;
  kind: "web page" | "remote shell" | "console only";
  certificateWarning: boolean;
}

function addressLines(ground: PlannedOn): ConsoleLine[] {
  const { school, address, gateway } = ground.sheet.network;
  const segment = segmentOf(ground);
  const length = prefixLengthOf(segment?.prefix ?? "");
  const kind = addressKind(address);
  if (school === "dynamic")
    return [
      {
        what: "Address",
        value: "whatever DHCP gives",
        means: "nobody knows it yet: read it there, and write it down",
      },
    ];
  if (!address) return [];
  return [
    {
      what: "Address",
      value: length === null ? address : `${address}/${length}`,
      means: [
        school === "reserved" ? "lent by DHCP, always the same" : "fixed",
        kind ? ADDRESS_KINDS[kind] : "no address",
      ].join("; "),
    },
    ...(length !== null && !address.includes(":")
      ? [
          {
            what: "Netmask",
            value: netmaskOf(length),
            means: `the same as /${length}, for screens that ask for it so`,
          },
        ]
      : []),
    ...(gateway
      ? [{ what: "Gateway", value: gateway, means: `the way out of ${segment?.name ?? "its network"}` }]
      : []),
  ];
}

function portLines(ground: PlannedOn): ConsoleLine[] {
  const port = portOf(ground);
  const facts = factsOf(ground);
  if (!port || !facts) return [];
  const own = linkLocalAddress(port.mac);
  return [
    {
      what: "Port",
      value: port.mac,
      means: "the MAC is the same everywhere, whatever the system calls the port",
    },
    {
      what: "Its name",
      value: port.seenAs,
      means: `as last read; a Linux with predictable names: ${portNameWords(portNamesOf(facts, port))}`,
    },
    ...(own ? [{ what: "Unasked", value: own, means: ADDRESS_KINDS["link local"] }] : []),
  ];
}

/**
 * What the console and the first page will show after the installation, with what each is: addresses, the port, what to
 * open, and what is compared there. `values` fill the profile's texts.
 */
export function consoleLines(
  ground: PlannedOn,
  management: Management | null,
  values: Readonly<Record<string, string>>,
): ConsoleLine[] {
  const open =
    management && management.kind !== "console only" ? fillTemplate(management.address, values) : null;
  return [
    ...addressLines(ground),
    ...portLines(ground),
    ...(open
      ? [
          {
            what: "Open",
            value: open,
            means: management!.kind === "web page" ? "in a browser of the same site" : "in a terminal",
          },
        ]
      : []),
    ...(management?.kind === "web page"
      ? [
          {
            what: "Certificate",
            value: management.certificateWarning ? "a warning comes" : "no warning comes",
            means: management.certificateWarning
              ? "it signs its own: read the fingerprint on the console, compare, and only then go on"
              : "a warning means that something else answers: stop",
          },
        ]
      : []),
    ...(management?.kind === "remote shell"
      ? [
          {
            what: "Host key",
            value: "ssh-keygen -lf /etc/ssh/ssh_host_ed25519_key.pub",
            means: "typed at the console: what it prints is what the first log-in must show",
          },
        ]
      : []),
  ];
}
