import { evidence } from "../../finding";
import { compareVersions } from "../../text";
import { check, readBy, say, type MachineCheck } from "./context";

/** Rules about what a machine needs done: defects, firmware, dates, its supplies and its circuit. */
export const upkeepChecks: readonly MachineCheck[] = [
  check("machine.defect", ({ document }) =>
    document.typed.defects
      .filter((d) => d.mendedOn === null)
      .map((d) =>
        say(
          "note",
          "machine.id",
          { what: d.what, affects: d.affects },
          [evidence("recorded on", d.since, d.by)],
          d.id,
        ),
      ),
  ),

  check("machine.firmware-outdated", ({ document }) =>
    document.typed.firmware
      .filter((f) => f.decision === "undecided" && compareVersions(f.installed, f.available) < 0)
      .map((f) =>
        say(
          "caution",
          "machine.id",
          { part: f.part, installed: f.installed, available: f.available },
          [evidence("installed", f.installed, "typed or imported"), evidence("available", f.available, f.by)],
          f.part,
        ),
      ),
  ),

  check("machine.firmware-due", ({ document, today }) =>
    document.typed.firmware
      .filter((f) => f.decision === "postponed" && f.due !== null && f.due < today)
      .map((f) =>
        say(
          "caution",
          "machine.id",
          { part: f.part, due: f.due ?? "", reason: f.reason || "no reason" },
          [evidence("postponed to", f.due ?? "", f.by)],
          f.part,
        ),
      ),
  ),

  check("machine.date-over", ({ document, today }) =>
    document.typed.dates
      .filter((d) => d.doneOn === null && d.due < today)
      .map((d) =>
        say("caution", "machine.id", { what: d.what, due: d.due }, [evidence("due", d.due, d.by)], d.id),
      ),
  ),

  check("machine.supply", (context) =>
    context.document.facts.powerSupplies
      .filter((p) => !/^(ok|enabled|present, ok|present|not told|good)\b/i.test(p.state))
      .map((p) =>
        say(
          "caution",
          "machine.id",
          { supply: p.id, state: p.state },
          [evidence(p.id, p.state, readBy(context, `powerSupplies.${p.id}`))],
          p.id,
        ),
      ),
  ),

  check("machine.circuit", ({ circuit }) => {
    if (!circuit || circuit.watts <= circuit.limitWatts) return null;
    const over = circuit.watts - circuit.limitWatts;
    return say(
      "caution",
      "machine.id",
      {
        circuit: circuit.name,
        watts: `${Math.round(circuit.watts)} W`,
        limit: `${Math.round(circuit.limitWatts)} W`,
        over: `${Math.round(over)} W`,
      },
      [
        evidence(
          "load of its machines",
          `${Math.round(circuit.watts)} W`,
          `latest measurements under load of ${circuit.machines} machines`,
        ),
        evidence("limit", `${Math.round(circuit.limitWatts)} W`, "page of the site"),
      ],
    );
  }),
];
