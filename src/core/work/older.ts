type Bag = Record<string, unknown>;

const bag = (value: unknown): Bag => (typeof value === "object" && value !== null ? (value as Bag) : {});
const list = (value: unknown): unknown[] => (Array.isArray(value) ? value : []);
const some = (value: unknown): unknown[] => (value === null || value === undefined ? [] : [value]);
const statements = (value: unknown): Bag[] => list(value).map((says) => ({ of: "statement", says }));

/** Guards of the first runs: one drive, whose name still held the answer. */
function olderDrives({ drives, expect, target }: Bag): unknown[] {
  if (expect === undefined) return list(drives).map((drive) => ({ holds: "", ...bag(drive) }));
  return [{ id: "", proof: expect, name: String(target).replace(/ …\S+?(?=,|$)/, ""), holds: "" }];
}

/** What only its id, its letter or its parts told in plans of version 1. */
function kindOf({ id, kind, guard, readBack }: Bag): Bag {
  if (readBack) return { kind: "read back", ...bag(readBack) };
  if (guard) {
    const { group = "", asks, leaveAlone } = bag(guard);
    return { kind: "name drive", drives: olderDrives(bag(guard)), group, asks, leaveAlone };
  }
  if (id === "collect" || id === "hand-over") return { kind: id === "collect" ? "collect" : "hand over" };
  return { kind: kind === "wait" || kind === "confirm" ? kind : "act" };
}

function originOf({ id, zone, told }: Bag): Bag {
  const screen = /(?:^|-)(?:screen|first)-(.+)$/.exec(String(id))?.[1];
  return screen === undefined || told
    ? { of: "work" }
    : { of: "screen", screen, at: zone === "H" ? "installer" : "first start" };
}

/** Runs from before effects were kept: the two by which a start of the machine is known. */
function effectsOf({ id, zone, effects }: Bag): unknown[] {
  const kept = list(effects);
  if (kept.length > 0) return kept;
  if (id === "cold-start") return ["off", "on"].map((to) => ({ do: "switch power", to }));
  return zone === "H" && String(id).endsWith("restart") ? [{ do: "restart" }] : [];
}

/** A step of a plan of version 1, as a later Derrick may not have checked it, as an operation. */
export function upgradedStep(value: unknown): Bag {
  const old = bag(value);
  const { see, never, type, secret, expected, asks, does, moves, screen, told, ...same } = old;
  const { kind: _, guard: __, readBack: ___, ...rest } = same;
  return {
    ...{ must: "", runs: 0, ...rest, ...kindOf(old) },
    origin: originOf(old),
    lines: type,
    secrets: secret,
    sees: statements(see),
    never: statements(never),
    normal: list(expected).map((e) => ({
      sight: { of: "statement", says: bag(e).looks },
      means: bag(e).means,
    })),
    records: asks ?? "",
    measures: [
      ...some(moves).map((m) => ({ of: "transfer", ...bag(m) })),
      ...(screen ? [{ of: "wait", what: screen }] : []),
    ],
    effects: effectsOf(old),
    deeds: some(does),
    lent: some(told).map((report) => ({ executor: "boot service", report })),
  };
}
