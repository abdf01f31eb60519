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
  "network.headless": message(
    "Nobody finds it without a screen",
    "The address is dynamic, and the machine has no management controller: once screen and keyboard are taken away, only the DHCP server knows where it is.",
    "Fix or reserve the address first; leave screen and keyboard until it has answered there.",
    "The screen is carried off on the first day, and back on the second.",
  ),
  "network.interface": message(
    "Interface does not fit",
    "The {kind} {name} cannot be made: {state}.",
    "Correct it, or take it out.",
    "A network file with one wrong line is refused whole, and the machine starts without any network.",
    {
      state: {
        name: "its name is no name of an interface: 1 to 15 letters, digits, dots, dashes or underlines",
        twice: "another one has the same name",
        circle: "in the end it stands on itself",
        gone: "it stands on {on}, which is not there",
        nothing: "it stands on nothing",
        "no vlan": "it has no VLAN number",
        "no network": "its network is not at the site any more",
      },
    },
  ),
  "network.carrier": message(
    "Address has no place",
    "The management address cannot stand there: {state}.",
    "Choose the interface that carries it.",
    "A port that belongs to a bond or bridge answers to no address of its own: the machine is there, and nobody reaches it.",
    {
      state: {
        gone: "there is no interface {carrier} any more",
        elsewhere: "{carrier} does not go through the chosen port {port}",
        held: "the port belongs to {master}, and the address is on the port itself",
        "no group": "{carrier} has no port group for management",
        "other group": "the port group {group} for management is in another network than the address",
      },
    },
  ),
  "network.group": message(
    "Port group is not whole",
    "The port group {group} on {on} {state}.",
    "Give it a name of its own, and its network.",
    "A guest that is put into it ends in whatever network has no tag.",
    {
      state: {
        "no name": "has no name",
        twice: "has the name of another one",
        "no network": "has no network",
      },
    },
  ),
  "network.port-twice": message(
    "One port in two",
    "{port} belongs to {holders}.",
    "Leave it in one of them.",
    "A port can have one master; the second one to ask for it fails at every start.",
  ),
  "network.bond": message(
    "Bond of too little",
    "The bond {name} {state}.",
    "Give it two wired ports.",
    "A bond is for the day on which one of its ports fails.",
    { state: { one: "has one port", wireless: "has the wireless port {port}" } },
  ),
  "network.mtu-below": message(
    "Larger packets than what is below",
    "{name} has an MTU of {mtu}, and {below} below it passes {passes}.",
    "Raise the one below, or lower this one.",
    "The system refuses it, or large packets vanish while small ones pass.",
  ),
  "network.other-address": message(
    "Address of an interface",
    "{address} cannot stand on {name}: {state}.",
    "Correct the address or its segment.",
    "It is tried once, at the first start, when nobody looks.",
    {
      state: {
        "not one": "it is not an address",
        "no segment": "no segment is chosen for it",
        outside: "it lies outside {prefix}",
        edge: "it is the network or broadcast address of {prefix}",
        own: "it is the management address",
        lent: "DHCP hands it out",
        taken: "it belongs to {owner}",
      },
    },
  ),
  "network.vlan-aware": message(
    "VLAN-aware bridge below the management address",
    "{bridge} carries the management address and sorts frames by VLAN: frames without a tag become VLAN 1 inside, and a VLAN that is not listed is dropped. It does not lessen traffic.",
    "Make the change at the console, or with the timed commands of this zone, which put the old state back.",
    "One wrong list on this bridge ends the session that typed it.",
  ),
  "network.vlan-tag": message(
    "Tag of another VLAN",
    "{what} is in {segment}, which is {vlan}, and is sent with the tag of {tag}.",
    "Correct the number, or choose the other network.",
    "It answers in a network where nobody looks for it.",
  ),
  "network.vlan-path": message(
    "VLAN does not fit the switch port",
    "{what} is in {vlan}, and {state}.",
    "Correct the switch port, or the interface.",
    "The link is on, the address is right, and nobody answers.",
    {
      state: {
        closed: "{far} ({set}) does not let it through",
        "wants tag": "{far} ({set}) sends it with a tag, which the machine does not expect",
        "takes no tag": "{far} ({set}) sends it without a tag, while the machine sends a tag",
      },
    },
  ),
  "network.mtu-path": message(
    "Smaller packets on the way",
    "{what} has an MTU of {mtu}, and {on} passes {passes}.",
    "Set the same on the whole way.",
    "Log-ins work and transfers hang: only the large packets are lost.",
  ),
  "network.bond-group": message(
    "Bond and switch do not agree",
    "The bond {bond} is {mode}, and at its switch ports ({ports}) {state}.",
    "Set both sides alike.",
    "A group on one side only loses frames, or sends them round in a circle.",
    {
      state: {
        missing: "there is no group of all of them",
        several: "they are in several groups",
        unasked: "there is a group that it does not ask for",
        "other way": "the group is agreed in another way: LACP on one side, simply on at the other",
      },
    },
  ),
  "network.bond-switches": message(
    "Where the bond's cables go",
    "The bond {bond} ({mode}) goes to {switches}: {state}.",
    "Move a cable, or say why it is meant.",
    "What a bond is for shows only on the day when a switch restarts.",
    {
      state: {
        one: "when this switch is down, both ports are",
        two: "a group of one switch cannot span two, unless they act as one",
      },
    },
  ),
  "network.shared-port": message(
    "Storage shares a port",
    "{storage} and {other} both go by {port} alone.",
    "Give storage a port or a bond of its own.",
    "A backup fills the port, and the disks of the guests wait behind it.",
  ),
  "network.which-port": message(
    "Which port it is cannot be seen",
    "{port} and {others} look alike from outside, {state}.",
    "Read the MAC {mac} on the console; or put the cable in and see whose link comes on. Then plan the cable at the site.",
    "The cable is in the port beside, and everything else is looked at first.",
    {
      state: {
        up: "and all have a link",
        down: "and none has a link",
        unknown: "and the links were not read",
      },
    },
  ),
  "network.unreached-names": message(
    "Name servers out of reach",
    "{servers} lie outside {segment}, and from there they are not reached: {state}.",
    "Take name servers inside the segment, or give the machine a way out.",
    "Every look-up waits for its time limit; log-ins take half a minute and look like a slow disk.",
    { state: { "no gateway": "no gateway is given", isolated: "the segment is isolated" } },
  ),
  "network.door": message(
    "Door from outside",
    "{service} is open from outside, and {state}.",
    "Say why, until when, and why no less exposed way will do; or close it.",
    "A door that is opened for a day stays open for years.",
    {
      state: {
        "no reason": "nobody has said why",
        "no end": "no day is set on which it is closed",
        over: "it was to be closed on {day}",
        "not considered": 'nobody has said why "{way}" will not do',
      },
    },
  ),
  "network.door-unproven": message(
    "Door opened before it is hardened",
    "{service} is open from outside, and {state}.",
    "Let only keys in, try it from outside, and write down what was tried; then open it.",
    "The first guesses at a password come within minutes.",
    {
      state: {
        password: "it takes passwords",
        open: "it asks for no log-in",
        "not told": "how one logs in was not told",
        "not proven": "nothing was tried against it before",
      },
    },
  ),
  "network.door-manages": message(
    "Management open from outside",
    "{service} gives power over the machine, and is open from outside.",
    "Reach it by a VPN or from inside the site.",
    "Whoever finds a fault in it owns the machine, and what its drives hold.",
  ),
};
