import { evidence } from "../../finding";
import { check, portCheck, say, type MachineCheck } from "./context";

export const portChecks: readonly MachineCheck[] = [
  portCheck("network.only-wireless", ({ document: { facts } }) => {
    if (facts.ports.length === 0 || facts.ports.some((p) => p.kind === "ethernet")) return null;
    return say("stop", "network.port", { port: facts.ports[0]?.seenAs ?? "" }, [
      evidence("ports", facts.ports.map((p) => `${p.seenAs} (wireless)`).join(", "), "ip"),
    ]);
  }),
];

/** What only the machine's own sheet says: a build has the same facts in its own words, beside its chosen way. */
export const reachChecks: readonly MachineCheck[] = [
  check("machine.no-controller", ({ document: { facts } }) =>
    facts.controller?.present === false ? say("note", "machine.id", {}, []) : null,
  ),
  check("machine.no-media-licence", ({ document: { facts } }) =>
    facts.controller?.present && facts.controller.virtualMedia === "not licensed"
      ? say("note", "machine.id", {}, [evidence("virtual media", "not licensed", "typed or imported")])
      : null,
  ),
];
