import { emptyMachine, portSchema, type MachineDocument } from "../machine";
import { isSerial, type Caller } from "./arming";

/** A machine as it told of itself when it asked over the network: what it did not tell stays unread. */
export function machineOf(caller: Caller, at: string): MachineDocument {
  const document = emptyMachine();
  const { mac, maker, model, serial, uuid } = caller;
  const told = { maker, model, uuid, serial: isSerial(serial) ? serial : "" };
  const source = { tool: "network boot", from: caller.address, at };
  const chassis = Object.fromEntries(Object.entries(told).filter(([, value]) => value !== ""));
  const port = portSchema.parse({ mac, seenAs: mac, kind: "ethernet", link: "up" });
  return {
    ...document,
    facts: { ...document.facts, chassis, ports: [port] },
    sources: Object.fromEntries(
      ["ports", ...Object.keys(chassis).map((key) => `chassis.${key}`)].map((path) => [path, source]),
    ),
  };
}
