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
        value: "assigned by DHCP",
        means: "unknown: read it there, and record it",
      },
    ];
  if (!address) return [];
  return [
    {
      what: "Address",
      value: length === null ? address : `${address}/${length}`,
      means: [
        school === "reserved" ? "DHCP reservation, always the same" : "fixed",
        kind ? ADDRESS_KINDS[kind] : "no address",
      ].join("; "),
    },
    ...(length !== null && !address.includes(":")
      ? [
          {
            what: "Netmask",
            value: netmaskOf(length),
            means: `the same as /${length}, for screens that ask for it in this form`,
          },
        ]
      : []),
    ...(gateway
      ? [{ what: "Gateway", value: gateway, means: `gateway of ${segment?.name ?? "its network"}` }]
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
      means: "the MAC identifies the port; its name depends on the system",
    },
    {
      what: "Port name",
      value: port.seenAs,
      means: `as last collected; a Linux with predictable names: ${portNameWords(portNamesOf(facts, port))}`,
    },
    ...(own ? [{ what: "IPv6 link-local", value: own, means: ADDRESS_KINDS["link local"] }] : []),
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
            what: "Access",
            value: open,
            means: management!.kind === "web page" ? "in a browser of the same site" : "in a terminal",
          },
        ]
      : []),
    ...(management?.kind === "web page"
      ? [
          {
            what: "Certificate",
            value: management.certificateWarning
              ? "the browser shows a warning"
              : "the browser shows no warning",
            means: management.certificateWarning
              ? "self-signed: compare its fingerprint with the console before you continue"
              : "a warning means that another device responds: stop",
          },
        ]
      : []),
    ...(management?.kind === "remote shell"
      ? [
          {
            what: "Host key",
            value: "ssh-keygen -lf /etc/ssh/ssh_host_ed25519_key.pub",
            means: "run at the console: the first login must show the same fingerprint",
          },
        ]
      : []),
  ];
}
