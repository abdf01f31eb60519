import { message } from "../../finding";

/** The words of the check of a whole site; {facts} come from the hit. */
export const SITE_MESSAGES = {
  "site.address-twice": message(
    "Address assigned twice",
    "{address} is in use by {holders}.",
    "Assign another address to one of them.",
    "The machines fail alternately, and each looks healthy while the other is down.",
  ),
  "site.address-outside": message(
    "Address outside all networks",
    "{address} of {holder} is in none of the networks of the site.",
    "Correct it, or add its network.",
    "An address outside the plan cannot be checked for conflicts.",
  ),
  "site.address-in-range": message(
    "Static address inside a DHCP range",
    "{address} of {holder} is in the DHCP range of {segment}, and is not reserved.",
    "Reserve it, or choose an address outside the range.",
    "The DHCP server can assign the address to another device.",
  ),
  "site.reserved-otherwise": message(
    "Address reserved for another MAC",
    "{address} is reserved for {mac} ({name}), and planned for {holder}.",
    "Correct the reservation or the plan.",
    "The DHCP server assigns the address to the other device.",
  ),
  "site.mac-twice": message(
    "MAC assigned twice",
    "The MAC {mac} is that of {holders}.",
    "Collect both machines again; remove the wrong one from the plan.",
    "Reservations apply to the wrong machine.",
  ),
  "site.reservations": message(
    "Several reservations for one MAC",
    "{mac} has several reservations: {addresses}.",
    "Keep one per network.",
    "The order in the configuration of the server decides which one is used.",
  ),
  "site.name-twice": message(
    "Name assigned twice",
    "The name {name} is that of {holders}.",
    "Rename one of them.",
    "Connections reach the wrong machine.",
  ),
  "site.port-twice": message(
    "Port has two cables",
    "{port} has {count} cables.",
    "Correct the cable list.",
    "The real port of one of the cables is unknown.",
  ),
  "site.vlan-twice": message(
    "VLAN assigned twice",
    "VLAN {vlan} is that of {segments}.",
    "Assign a different VLAN number to each network.",
    "Machines of both networks share one broadcast domain, and get addresses from the wrong DHCP server.",
  ),
  "site.prefix-overlap": message(
    "Networks overlap",
    "{first} overlaps {second}.",
    "Change one of the subnets.",
    "When both networks are connected, parts of each are unreachable from the other.",
  ),
  "site.range-overlap": message(
    "DHCP ranges overlap",
    "The range in {first} overlaps {second}.",
    "Separate the ranges.",
    "Two servers assign the same address.",
  ),
  "site.default-log-in": message(
    "Default credentials in use",
    "{device} still uses its factory login.",
    "Change the login, then record here that it was changed.",
    "Default credentials are on labels, in manuals and in public lists.",
  ),
};
