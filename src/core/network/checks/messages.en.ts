import { message } from "../../finding";

/** The words of the rules about addresses and ports; {facts} come from the hit. */
export const NETWORK_MESSAGES = {
  "network.no-port": message(
    "Port not chosen",
    "For the management address {state}.",
    "Choose the port by its MAC.",
    "Which port the cable is in cannot be told from its name alone.",
    { state: { gone: "the chosen port {port} is not among the machine's ports", none: "no port is chosen" } },
  ),
  "network.wireless-port": message(
    "Wireless port chosen",
    "{port} is wireless; {wired} is wired.",
    "Choose {wired}.",
    "The wireless driver may be absent in the installer.",
  ),
  "network.no-link": message(
    "Chosen port has no link",
    "{port} had no link at the last import; link was seen on: {others}.",
    "Put the cable in, or choose the port that has it.",
    "The cable is often in the port beside.",
    { others: { some: "{ports}", none: "no other port" } },
  ),
  "network.no-address": message(
    "No address",
    "The address is {school}, and none is written.",
    "Take the next free one.",
    "An address made up in front of the installer is the one that clashes.",
  ),
  "network.not-an-address": message(
    "Not an address",
    '"{typed}" is not an address.',
    "Write four numbers from 0 to 255, or an IPv6 address, without the prefix length.",
    "Names and prefixes end up in this field.",
  ),
  "network.no-segment": message(
    "No segment",
    "The address is {school}, and of the site's segments {state}: prefix, netmask and clashes cannot be worked out.",
    "Choose the segment, or add it at the site.",
    "Without a prefix every check of an address is silent, and the installer asks for a netmask that nobody has.",
    { state: { gone: 'the segment "{segment}" is not at the site any more', none: "none is chosen" } },
  ),
  "network.outside": message(
    "Address outside its segment",
    "{address} does not lie in {prefix}.",
    "Correct the address or the segment.",
    "The machine would answer nobody, and the gateway would not hear it.",
  ),
  "network.edge": message(
    "Network or broadcast address",
    "{address} is the {edge} address of {prefix}.",
    "Take another.",
    "It is not for machines; some systems accept it and then behave strangely.",
  ),
  "network.taken": message(
    "Address in use",
    "{address} belongs to {owner}.",
    "Take the next free one.",
    "Two machines with one address fail by turns, and both look healthy.",
  ),
  "network.in-pool": message(
    "Fixed address inside a DHCP range",
    "{address} lies in the range {from} to {to} that the DHCP server hands out.",
    "Take one outside the range, or make a reservation.",
    "One day the server gives it to a telephone.",
  ),
  "network.not-reserved": message(
    "Reservation absent",
    "{port} is to get {address}; reserved for it: {has}.",
    "Add the reservation at the site.",
    "Without the reservation the machine gets whatever is free.",
    { has: { other: "{reserved}", none: "none" } },
  ),
  "network.gateway": message(
    "Gateway not reachable",
    "{gateway} cannot be the gateway: {why}.",
    "Correct it from the segment.",
    "A machine with a wrong gateway answers only its neighbours.",
    {
      why: {
        "no address": "it is not an address",
        own: "it is the machine's own address",
        outside: "it lies outside {prefix}",
      },
    },
  ),
  "network.no-gateway": message(
    "No gateway",
    "No gateway is given on {segment}.",
    "Take it from the segment, unless the machine must stay unreachable from elsewhere.",
    "Updates and time come from elsewhere.",
  ),
  "network.name-servers": message(
    "Name servers",
    "Of name servers, {state}.",
    "Take them from the segment.",
    "Without names, updates and certificates fail in ways that look like other faults.",
    { state: { wrong: '"{typed}" is not an address', none: "none is given" } },
  ),
  "network.dynamic": message(
    "Server on a dynamic address",
    "The address may be another one tomorrow: {state}.",
    "Reserve or fix it, or set a coming day by which it is fixed.",
    "Screen and keyboard are taken away, and then nobody finds the machine.",
    { state: { over: "it was to be fixed by {day}", open: "no day is set by which it is fixed" } },
  ),
};
