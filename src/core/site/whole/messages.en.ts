import { message } from "../../finding";

/** The words of the check of a whole site; {facts} come from the hit. */
export const SITE_MESSAGES = {
  "site.address-twice": message(
    "One address for two",
    "{address} is held by {holders}.",
    "Give one of them another.",
    "Both work by turns, and each looks healthy while the other is down.",
  ),
  "site.address-outside": message(
    "Address in none of the networks",
    "{address} of {holder} lies in none of the site's networks.",
    "Correct it, or add its network.",
    "What stands outside every plan is found in use later.",
  ),
  "site.address-in-range": message(
    "Fixed address inside a DHCP range",
    "{address} of {holder} lies in the range that DHCP hands out in {segment}, and is not reserved.",
    "Reserve it, or take one outside the range.",
    "One day the server gives it to a telephone.",
  ),
  "site.reserved-otherwise": message(
    "Reserved for another MAC",
    "{address} is reserved for {mac} ({name}), and {holder} is planned with it.",
    "Correct the reservation or the plan.",
    "The DHCP server answers the one card, and the other one has taken the address.",
  ),
  "site.mac-twice": message(
    "One MAC for two",
    "The MAC {mac} is held by {holders}.",
    "Read both machines again; take the wrong one out of the plan.",
    "A copied plan or a moved card: reservations go to the wrong machine.",
  ),
  "site.reservations": message(
    "Reserved twice",
    "For {mac} there are several reservations: {addresses}.",
    "Leave one in each network.",
    "Which one the server gives depends on the order of its file.",
  ),
  "site.name-twice": message(
    "One name for two",
    "The name {name} is held by {holders}.",
    "Rename one of them.",
    "Half of the sessions end on the wrong machine.",
  ),
  "site.port-twice": message(
    "Two cables in one port",
    "In {port} there are {count} cables.",
    "Correct the list of cables.",
    "One of them is somewhere else, and nobody knows where.",
  ),
  "site.vlan-twice": message(
    "One VLAN for two networks",
    "VLAN {vlan} is {segments}.",
    "Give each a number of its own.",
    "Machines of both hear each other, and get addresses from the wrong server.",
  ),
  "site.prefix-overlap": message(
    "Networks overlap",
    "{first} overlaps {second}.",
    "Change one of the prefixes.",
    "Once a tunnel joins them, part of each is out of reach for the other.",
  ),
  "site.range-overlap": message(
    "DHCP ranges overlap",
    "The range in {first} overlaps {second}.",
    "Part them.",
    "Two servers hand out one address, and each keeps a list in which it is free.",
  ),
  "site.default-log-in": message(
    "Log-in that it came with",
    "{device} still has the log-in that it came with.",
    "Change it, then write here that it was changed.",
    "It stands on the label, in the manual and in every list of such log-ins.",
  ),
};
