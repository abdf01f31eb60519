import { message } from "../../finding";

/** The words of the rules about addresses and ports; {facts} come from the hit. */
export const NETWORK_MESSAGES = {
  "network.no-port": message(
    "Port not chosen",
    "Management address: {state}.",
    "Choose the port by its MAC.",
    "The name of a port does not show which port the cable is in.",
    { state: { gone: "the chosen port {port} is not a port of the machine", none: "no port is chosen" } },
  ),
  "network.wireless-port": message(
    "Wireless port chosen",
    "{port} is wireless; {wired} is wired.",
    "Choose {wired}.",
    "The installer may lack the wireless driver.",
  ),
  "network.no-link": message(
    "Chosen port has no link",
    "{port} had no link at the last import; ports with a link: {others}.",
    "Connect the cable, or choose the port that has a link.",
    "The cable may be in an adjacent port.",
    { others: { some: "{ports}", none: "none" } },
  ),
  "network.no-address": message(
    "Address missing",
    "The address assignment is {school}, and no address is set.",
    "Use the next free address.",
    "An address chosen during the installation can conflict with another one.",
  ),
  "network.not-an-address": message(
    "Address invalid",
    '"{typed}" is not an IP address.',
    "Enter four numbers from 0 to 255, or an IPv6 address, without the prefix length.",
    "The installer rejects an invalid address.",
  ),
  "network.no-segment": message(
    "Network missing",
    "The address assignment is {school}; network: {state}. Prefix length, netmask and conflicts cannot be computed.",
    "Choose the network, or add it to the site.",
    "Without a network no address can be checked, and the installer asks for an unknown netmask.",
    { state: { gone: '"{segment}" no longer exists at the site', none: "none is chosen" } },
  ),
  "network.outside": message(
    "Address outside its network",
    "{address} is not in {prefix}.",
    "Correct the address or the network.",
    "The machine cannot communicate with its gateway.",
  ),
  "network.edge": message(
    "Network or broadcast address",
    "{address} is the {edge} address of {prefix}.",
    "Choose another address.",
    "Hosts cannot use it; some systems accept it and then fail.",
  ),
  "network.taken": message(
    "Address in use",
    "{address} is in use by {owner}.",
    "Use the next free address.",
    "Two machines with one address fail alternately, and both look healthy.",
  ),
  "network.in-pool": message(
    "Static address inside a DHCP range",
    "{address} is in the DHCP range {from} to {to}.",
    "Choose an address outside the range, or add a reservation.",
    "The DHCP server can assign the address to another device.",
  ),
  "network.not-reserved": message(
    "DHCP reservation missing",
    "{port} needs {address}; reserved for it: {has}.",
    "Add the reservation to the site.",
    "Without the reservation the DHCP server assigns any free address.",
    { has: { other: "{reserved}", none: "none" } },
  ),
  "network.gateway": message(
    "Gateway not reachable",
    "{gateway} cannot be the gateway: {why}.",
    "Use the gateway of the network.",
    "With a wrong gateway, the machine reaches only its own network.",
    {
      why: {
        "no address": "not an IP address",
        own: "it is the address of the machine itself",
        outside: "it is outside {prefix}",
      },
    },
  ),
  "network.no-gateway": message(
    "Gateway missing",
    "No gateway is set for {segment}.",
    "Use the gateway of the network, unless the machine must stay isolated.",
    "Updates and time synchronisation need a gateway.",
  ),
  "network.name-servers": message(
    "DNS servers missing or invalid",
    "DNS servers: {state}.",
    "Use the DNS servers of the network.",
    "Without name resolution, updates and certificate checks fail with unclear errors.",
    { state: { wrong: '"{typed}" is not an IP address', none: "none is set" } },
  ),
  "network.dynamic": message(
    "Server uses a dynamic address",
    "The address can change: {state}.",
    "Use a static address or a reservation, or set a date by which it becomes static.",
    "If the address changes, the machine is hard to find without a console.",
    {
      state: {
        over: "the date {day} by which it was to become static has passed",
        open: "no date is set by which it becomes static",
      },
    },
  ),
  "network.headless": message(
    "Address will be unknown without a console",
    "The address is dynamic, and the machine has no management controller: without screen and keyboard, only the DHCP server knows the address.",
    "Use a static address or a reservation; leave screen and keyboard connected until the machine responds there.",
    "Without an address, the machine needs a screen and keyboard again.",
  ),
  "network.interface": message(
    "Interface invalid",
    "The {kind} {name} cannot be created: {state}.",
    "Correct or remove it.",
    "A network file with one invalid line is rejected as a whole, and the machine boots without a network.",
    {
      state: {
        name: "its name is not an interface name: 1 to 15 letters, digits, dots, hyphens or underscores",
        twice: "another interface has the same name",
        circle: "its parent interfaces form a loop",
        gone: "its parent interface {on} does not exist",
        nothing: "it has no parent interface",
        "no vlan": "it has no VLAN number",
        "no network": "its network no longer exists at the site",
      },
    },
  ),
  "network.carrier": message(
    "Management address on a wrong interface",
    "The management address is not usable: {state}.",
    "Choose the interface for the management address.",
    "A port that is a member of a bond or bridge does not respond at its own address.",
    {
      state: {
        gone: "interface {carrier} no longer exists",
        elsewhere: "{carrier} does not use the chosen port {port}",
        held: "the port is a member of {master}, and the address is on the port itself",
        "no group": "{carrier} has no port group for management",
        "other group": "the management port group {group} is in another network than the address",
      },
    },
  ),
  "network.group": message(
    "Port group incomplete",
    "The port group {group} on {on} {state}.",
    "Set a unique name and a network.",
    "A guest in this port group uses the untagged network.",
    {
      state: {
        "no name": "has no name",
        twice: "has the same name as another port group",
        "no network": "has no network",
      },
    },
  ),
  "network.port-twice": message(
    "Port has two parent interfaces",
    "{port} is a member of {holders}.",
    "Remove it from all but one.",
    "A port can have one parent interface; the second one fails at every boot.",
  ),
  "network.bond": message(
    "Bond has too few ports",
    "The bond {name} {state}.",
    "Assign two wired ports.",
    "A bond tolerates a port failure only with a second wired port.",
    { state: { one: "has one port", wireless: "has the wireless port {port}" } },
  ),
  "network.mtu-below": message(
    "MTU larger than the underlying interface",
    "{name}: MTU {mtu}; {below}: MTU {passes}.",
    "Increase the MTU of the underlying interface, or reduce this one.",
    "The system rejects it, or large packets are lost while small ones pass.",
  ),
  "network.other-address": message(
    "Interface address invalid",
    "{address} on {name}: {state}.",
    "Correct the address or its network.",
    "The error shows only after the first boot.",
    {
      state: {
        "not one": "not an IP address",
        "no segment": "no network is chosen for it",
        outside: "it is outside {prefix}",
        edge: "it is the network or broadcast address of {prefix}",
        own: "it is the management address",
        lent: "it is in a DHCP range",
        taken: "it is in use by {owner}",
      },
    },
  ),
  "network.vlan-aware": message(
    "Management address on a VLAN-aware bridge",
    "{bridge} has the management address and filters frames by VLAN: untagged frames become VLAN 1, and frames of unlisted VLANs are dropped. It does not reduce traffic.",
    "Make the change at the console, or with the commands with automatic rollback of this zone.",
    "A wrong VLAN list on this bridge cuts your own connection.",
  ),
  "network.vlan-tag": message(
    "VLAN tag does not match the network",
    "{what} is in {segment}, which is {vlan}, and is sent with tag {tag}.",
    "Correct the VLAN number, or choose the other network.",
    "The machine appears in the wrong network.",
  ),
  "network.vlan-path": message(
    "VLAN does not match the switch port",
    "{what} is in {vlan}, and {state}.",
    "Correct the switch port or the interface.",
    "The link is up and the address is correct, but no traffic passes.",
    {
      state: {
        closed: "{far} ({set}) does not allow it",
        "wants tag": "{far} ({set}) sends it tagged, and the machine expects it untagged",
        "takes no tag": "{far} ({set}) sends it untagged, and the machine expects it tagged",
      },
    },
  ),
  "network.mtu-path": message(
    "MTU of the path too small",
    "{what}: MTU {mtu}; {on}: MTU {passes}.",
    "Set the same MTU on the whole path.",
    "Logins work and transfers hang, because only large packets are lost.",
  ),
  "network.bond-group": message(
    "Bond does not match the switch",
    "The bond {bond} is {mode}, and at its switch ports ({ports}) {state}.",
    "Set the same mode on both sides.",
    "A LAG on one side only loses frames or creates a loop.",
    {
      state: {
        missing: "there is no LAG of all of them",
        several: "they are in several LAGs",
        unasked: "there is a LAG that the bond does not use",
        "other way": "the mode differs: LACP on one side, static LAG on the other",
      },
    },
  ),
  "network.bond-switches": message(
    "Bond cabling unsuitable",
    "The bond {bond} ({mode}) is connected to {switches}: {state}.",
    "Move a cable, or record why this is intended.",
    "The redundancy of a bond is lost if its switch restarts.",
    {
      state: {
        one: "if this switch fails, both ports fail",
        two: "a LAG cannot span two switches, unless they act as one",
      },
    },
  ),
  "network.shared-port": message(
    "Storage shares a port",
    "{storage} and {other} both use only {port}.",
    "Use a separate port or bond for storage.",
    "Other traffic, for example a backup, delays the storage of guests.",
  ),
  "network.which-port": message(
    "Port cannot be identified",
    "{port} and {others} look the same from outside, {state}.",
    "Read the MAC {mac} on the console, or connect the cable and see which link comes up. Then add the cable at the site.",
    "A cable in the wrong port is hard to find.",
    {
      state: {
        up: "and all have a link",
        down: "and none has a link",
        unknown: "and their link states were not collected",
      },
    },
  ),
  "network.unreached-names": message(
    "DNS servers not reachable",
    "{servers} are outside {segment} and not reachable from there: {state}.",
    "Choose DNS servers inside the network, or set a gateway.",
    "Every DNS query runs into its time-out, and logins take half a minute.",
    { state: { "no gateway": "no gateway is set", isolated: "the network is isolated" } },
  ),
  "network.door": message(
    "Exposed service: reason or end date missing",
    "{service} is reachable from outside, and {state}.",
    "Enter the reason, the end date, and why less exposed options are not sufficient; or close it.",
    "Temporary access without an end date stays open.",
    {
      state: {
        "no reason": "no reason is recorded",
        "no end": "no end date is set",
        over: "the end date {day} has passed",
        "not considered": 'no reason is recorded why "{way}" is not sufficient',
      },
    },
  ),
  "network.door-unproven": message(
    "Service exposed before it is hardened",
    "{service} is reachable from outside, and {state}.",
    "Allow key login only, test it from outside, and record the test; then open it.",
    "Password guessing starts within minutes.",
    {
      state: {
        password: "it accepts passwords",
        open: "it requires no login",
        "not told": "its login method is unspecified",
        "not proven": "no test before opening is recorded",
      },
    },
  ),
  "network.door-manages": message(
    "Management access exposed",
    "{service} gives management access, and is reachable from outside.",
    "Use a VPN, or access from inside the site.",
    "A vulnerability in it gives full control of the machine and its data.",
  ),
};
