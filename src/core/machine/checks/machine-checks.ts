import { valueAt } from "../../document";
import { evidence } from "../../finding";
import { formatFixed, formatBinaryBytes, secondsBetween, dayIn } from "../../units";
import { factWords } from "../facts/describe";
import { compareDelivery } from "../document/expected";
import { check, readBy, say, type MachineCheck } from "./context";

const DAY = 86_400;
const STALE_DAYS = 45;
/** A processor that idles above this has no air to spare under load; used where a chip states no limit of its own. */
const IDLE_LIMIT = 60;
/** Kelvins that should be left below a stated limit. */
const MARGIN = 10;

export const machineChecks: readonly MachineCheck[] = [
  check("machine.memory-lost", (context) => {
    const { installedBytes: installed, recognisedBytes: seen } = context.document.facts.memory ?? {};
    // Firmware and kernel keep a few hundred MiB for themselves; more than an eighth and 1 GiB is a module not seen.
    if (!installed || !seen || installed - seen < Math.max(installed / 8, 2 ** 30)) return null;
    return say(
      "caution",
      "machine.id",
      { installed: formatBinaryBytes(installed), seen: formatBinaryBytes(seen) },
      [
        evidence("installed", formatBinaryBytes(installed), readBy(context, "memory.installedBytes")),
        evidence("recognised", formatBinaryBytes(seen), readBy(context, "memory.recognisedBytes")),
      ],
    );
  }),

  check("machine.memory-unequal", (context) => {
    const fitted = (context.document.facts.memory?.modules ?? []).filter((m) => m.sizeBytes > 0);
    const sizes = [...new Set(fitted.map((m) => m.sizeBytes))].sort((a, b) => b - a);
    const rates = [...new Set(fitted.map((m) => m.megatransfers).filter((r) => r !== null))];
    if (fitted.length < 2 || (sizes.length < 2 && rates.length < 2)) return null;
    const odd =
      sizes.length > 1
        ? sizes.map(formatBinaryBytes).join(" and ")
        : rates.map((r) => `${r} MT/s`).join(" and ");
    const large = fitted.filter((m) => m.sizeBytes === sizes[0]);
    return say("note", "machine.id", { odd, modules: String(fitted.length) }, [
      ...sizes.map((s) =>
        evidence(
          formatBinaryBytes(s),
          fitted
            .filter((m) => m.sizeBytes === s)
            .map((m) => m.slot)
            .join(", "),
          readBy(context, "memory.modules"),
        ),
      ),
      ...(sizes.length > 1
        ? []
        : [evidence("one size", `${large.length} modules`, readBy(context, "memory.modules"))]),
    ]);
  }),

  check("machine.twin", ({ document: { facts }, rivals, name }) => {
    const serial = facts.chassis?.serial;
    const macs = facts.ports.map((p) => p.mac.toLowerCase());
    const shared = new Map<string, string>();
    for (const { kind, key, owner } of rivals)
      if (owner === name) continue;
      else if (kind === "serial" && key === serial) shared.set(owner, `serial ${key}`);
      else if (kind === "mac" && macs.includes(key) && !shared.has(owner)) shared.set(owner, `MAC ${key}`);
    return [...shared].map(([other, what]) =>
      say(
        "stop",
        "machine.id",
        { shared: what, other },
        [evidence("this machine", what, "imported"), evidence(other, what, "imported")],
        other,
      ),
    );
  }),

  check("machine.stale", ({ document, now, timeZone }) => {
    const latest = Object.values(document.sources)
      .filter((s) => s.tool !== "typed")
      .map((s) => s.at)
      .sort()
      .at(-1);
    if (!latest) return say("caution", "machine.id", { age: "never" }, []);
    if (secondsBetween(latest, now) < STALE_DAYS * DAY) return null;
    const days = Math.floor(secondsBetween(latest, now) / DAY);
    return say("note", "machine.id", { age: "old", days: String(days) }, [
      evidence("last import", dayIn(latest, timeZone), "import history"),
    ]);
  }),

  check("machine.tools-disagree", ({ document, timeZone }) =>
    Object.entries(document.disputes).map(([path, claims]) => {
      const [group = "", ...rest] = path.split(".");
      const value =
        rest.length === 1 ? valueAt(document.facts, `${group}.${rest[0]}`) : itemValue(document.facts, path);
      const source = document.sources[path];
      return say(
        "caution",
        "machine.id",
        {
          fact: path,
          stands: factWords(path, value),
          other: claims.map((c) => factWords(path, c.value)).join(", "),
        },
        [
          evidence(
            "current value",
            factWords(path, value),
            source ? `${source.tool}, ${dayIn(source.at, timeZone)}` : "imported",
          ),
          ...claims.map((c) =>
            evidence(
              "other value",
              factWords(path, c.value),
              `${c.source.tool}, ${dayIn(c.source.at, timeZone)}`,
            ),
          ),
        ],
        path,
      );
    }),
  ),

  check("machine.not-as-delivered", ({ document }) =>
    compareDelivery(document)
      .filter((line) => line.verdict === "differs")
      .map((line) =>
        say(
          "caution",
          "machine.id",
          { what: line.what, expected: line.expected, observed: line.observed },
          [
            evidence("delivery note", line.expected, document.typed.expected?.from || "typed"),
            evidence("the machine reports", line.observed, "imported"),
          ],
          line.what,
        ),
      ),
  ),

  check("machine.hot", (context) =>
    context.document.facts.sensors
      .filter(
        (s) =>
          s.kind === "temperature" &&
          s.value > (s.max ?? s.critical ?? IDLE_LIMIT) - (s.max || s.critical ? MARGIN : 0),
      )
      .map((s) => {
        const stated = s.max ?? s.critical;
        const limit = stated ?? IDLE_LIMIT;
        return say(
          stated !== null && s.value >= stated ? "caution" : "note",
          "machine.id",
          { sensor: s.id, value: `${formatFixed(s.value, 0)} °C`, limit: `${formatFixed(limit, 0)} °C` },
          [
            evidence("reading", `${formatFixed(s.value, 1)} °C`, readBy(context, `sensors.${s.id}`)),
            evidence(
              stated === null ? "default for an idle machine" : "limit of the sensor",
              `${formatFixed(limit, 0)} °C`,
              stated === null ? "default of Derrick" : "sensors",
            ),
          ],
          s.id,
        );
      }),
  ),

  check("machine.laptop", (context) => {
    const form = context.document.facts.chassis?.form ?? "";
    const { lid, sleep, battery } = context.document.typed.laptop;
    if (!/laptop|notebook|portable/i.test(form) || (lid && sleep && battery)) return null;
    const said = (tried: boolean) => (tried ? "said" : "open");
    return say("caution", "machine.id", { lid: said(lid), sleep: said(sleep), battery: said(battery) }, [
      evidence("form", form, readBy(context, "chassis.form")),
    ]);
  }),
];

/** The value at "drives.SERIAL.key"; a serial may hold dots itself. */
function itemValue(facts: object, path: string): unknown {
  const [group = ""] = path.split(".", 1);
  const key = path.slice(path.lastIndexOf(".") + 1);
  const id = path.slice(group.length + 1, path.lastIndexOf("."));
  const list: unknown = valueAt(facts, group);
  const item: unknown = Array.isArray(list)
    ? list.find((i: { id?: string; mac?: string }) => (i.id ?? i.mac) === id)
    : undefined;
  return valueAt(item, key);
}
