import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { invertEdits, valueAt, withValueAt, type Edit } from "@/core/document";
import {
  afterEvent,
  isQuiet,
  newDraft,
  shown,
  wantsSending,
  type Draft,
  type DraftEvent,
  type Lens,
} from "./draft";

interface View {
  version: number;
  document: { name: string; place: { row: string; seat: number } };
}
const LENS: Lens<View> = { document: (v) => v.document, version: (v) => v.version };
const START: View = { version: 1, document: { name: "wrk", place: { row: "A", seat: 1 } } };
const after = (draft: Draft<View>, ...events: DraftEvent<View>[]): Draft<View> =>
  events.reduce((d, e) => afterEvent(d, e, LENS), draft);
const seen = (draft: Draft<View>): unknown => shown(draft, LENS);
const apply = (document: unknown, edits: readonly Edit[]): View["document"] =>
  edits.reduce<unknown>((d, e) => withValueAt(d, e.path, e.after) ?? d, document) as View["document"];
const view = (version: number, edits: readonly Edit[] = []): View => ({
  version,
  document: apply(START.document, edits),
});
const name = (after: string, before = "wrk"): Edit => ({ path: "name", before, after });

describe("a draft", () => {
  it("shows what was typed at once, and keeps of one field the first and the last value", () => {
    const draft = after(
      newDraft(START),
      { did: "type", changes: { name: "x" } },
      { did: "type", changes: { name: "y" } },
    );
    expect(seen(draft)).toEqual({ name: "y", place: { row: "A", seat: 1 } });
    expect(draft.pending).toEqual([name("y")]);
    expect(after(draft, { did: "type", changes: { name: "y" } })).toBe(draft);
  });

  it("keeps what was typed while a save was on its way", () => {
    const sent = after(newDraft(START), { did: "type", changes: { name: "x" } }, { did: "send" });
    const more = after(sent, { did: "type", changes: { name: "xy", "place.seat": 4 } });
    expect(wantsSending(more)).toBe(false);
    const saved = after(more, { did: "save", view: view(2, [name("x")]) });
    expect(seen(saved)).toEqual({ name: "xy", place: { row: "A", seat: 4 } });
    expect([wantsSending(saved), saved.done]).toEqual([true, [2]]);
    expect(after(saved, { did: "send" }, { did: "save", view: view(3) }).pending).toEqual([]);
  });

  it("gives nothing up when nothing is answered, or a value is refused", () => {
    const sent = after(newDraft(START), { did: "type", changes: { name: "x" } }, { did: "send" });
    const lost = after(sent, { did: "get no answer" });
    expect([lost.unanswered, wantsSending(lost), seen(lost)]).toEqual([1, true, seen(sent)]);
    const refused = after(sent, { did: "get refused", problems: [{ message: "too long" }] });
    expect([wantsSending(refused), seen(refused)]).toEqual([false, seen(sent)]);
    expect(wantsSending(after(refused, { did: "type", changes: { name: "z" } }))).toBe(true);
  });

  it("offers both versions after a clash, and goes on with what was chosen", () => {
    const typed = after(
      newDraft(START),
      { did: "type", changes: { name: "mine", "place.row": "B" } },
      { did: "send" },
    );
    const clash = after(typed, {
      did: "clash",
      clash: { view: view(2, [name("theirs")]), by: "M. Arkle", at: "2026-11-24T08:00:00Z" },
    });
    expect(clash.clash?.mine).toHaveLength(2);
    expect([wantsSending(clash), isQuiet(clash)]).toEqual([false, false]);
    const settled = after(clash, { did: "settle", keep: clash.clash!.mine.filter((e) => e.path === "name") });
    expect(settled.pending).toEqual([name("mine", "theirs")]);
    expect(seen(settled)).toEqual({ name: "mine", place: { row: "A", seat: 1 } });
  });

  it("hears of another version only while nothing is typed here, and of none that is older", () => {
    const heard: DraftEvent<View> = { did: "hear", view: view(3, [name("theirs")]) };
    expect(after(newDraft(START), heard).view.version).toBe(3);
    const typed = after(newDraft(START), { did: "type", changes: { name: "mine" } });
    expect(after(typed, heard)).toBe(typed);
    expect(after(newDraft(view(4)), heard).view.version).toBe(4);
  });

  it("undoes from the last change to the first, and makes each again until something else is typed", () => {
    const two = after(
      newDraft(START),
      ...[2, 3].flatMap((version): DraftEvent<View>[] => [
        { did: "type", changes: { name: `v${version}` } },
        { did: "send" },
        { did: "save", view: view(version, [name(`v${version}`)]) },
      ]),
    );
    expect(two.done).toEqual([2, 3]);
    const back = after(two, { did: "undo", view: view(4, [name("v2")]) });
    expect([back.done, back.undone]).toEqual([[2], [4]]);
    const again = after(back, { did: "redo", view: view(5, [name("v3")]) });
    expect([again.done, again.undone]).toEqual([[2, 5], []]);
    expect(after(back, { did: "type", changes: { name: "other" } }).undone).toEqual([]);
  });
});

/** A server with the guard of versions, and another hand that saves in between. */
class Server {
  version = 1;
  document = START.document;
  readonly saves = new Map<number, Edit[]>();

  get view(): View {
    return { version: this.version, document: this.document };
  }

  save(version: number, edits: readonly Edit[]): DraftEvent<View> {
    if (version !== this.version)
      return { did: "clash", clash: { view: this.view, by: "M. Arkle", at: "2026-11-24T08:00:00Z" } };
    return { did: "save", view: this.write(edits) };
  }

  write(edits: readonly Edit[]): View {
    const own = edits.map((e) => ({ ...e, before: valueAt(this.document, e.path) }));
    this.document = apply(this.document, own);
    this.version += 1;
    this.saves.set(this.version, own);
    return this.view;
  }

  /** Null where the fields were changed again since. */
  takeBack(version: number): View | null {
    const edits = this.saves.get(version) ?? [];
    const stands = edits.every((e) => valueAt(this.document, e.path) === e.after);
    return stands ? this.write(invertEdits(edits)) : null;
  }
}

const anything = fc.oneof(
  {
    weight: 5,
    arbitrary: fc.record({
      do: fc.constant("type" as const),
      field: fc.constantFrom("name", "place.row"),
      value: fc.integer({ min: 0, max: 30 }),
    }),
  },
  {
    // Most of what is sent is answered.
    weight: 8,
    arbitrary: fc.record({
      do: fc.constantFrom(
        "send" as const,
        "send" as const,
        "answer" as const,
        "answer" as const,
        "lose" as const,
        "hear" as const,
      ),
    }),
  },
  { weight: 2, arbitrary: fc.record({ do: fc.constant("settle" as const), mine: fc.boolean() }) },
  {
    weight: 2,
    arbitrary: fc.record({ do: fc.constant("undo" as const), again: fc.boolean() }),
  },
  { weight: 1, arbitrary: fc.record({ do: fc.constant("drop" as const) }) },
  {
    weight: 1,
    arbitrary: fc.record({ do: fc.constant("other hand" as const), value: fc.integer({ min: 31, max: 60 }) }),
  },
);

it("what is given up before it was sent is typed again by redo, and forgotten when something else is typed", () => {
  const dropped = after(
    newDraft(START),
    { did: "type", changes: { name: "x", "place.row": "B" } },
    { did: "drop" },
  );
  expect([seen(dropped), isQuiet(dropped)]).toEqual([START.document, true]);
  const again = after(dropped, { did: "take up" });
  expect(seen(again)).toEqual({ name: "x", place: { row: "B", seat: 1 } });
  expect(again.dropped).toBeNull();
  // A save that was undone meanwhile changes nothing about it; new words end it.
  const undone = after(dropped, { did: "undo", view: view(2) });
  expect(seen(after(undone, { did: "take up" }))).toEqual(seen(again));
  expect(after(dropped, { did: "type", changes: { name: "y" } }).dropped).toBeNull();
  // What is on its way is not given up.
  const sent = after(newDraft(START), { did: "type", changes: { name: "x" } }, { did: "send" });
  expect(after(sent, { did: "drop" })).toBe(sent);
});

it("changes in the rows of a list are one change of the list, however many fields they name", () => {
  const lens = { document: (v: { rows: unknown }) => v, version: () => 1 };
  const start = newDraft({
    rows: [
      { id: 1, n: "a" },
      { id: 2, n: "b" },
    ],
  });
  const once = afterEvent(start, { did: "type", changes: { "rows.0.n": "x", "rows.1.n": "y" } }, lens);
  expect(once.pending).toHaveLength(1);
  expect(shown(once, lens)).toEqual({
    rows: [
      { id: 1, n: "x" },
      { id: 2, n: "y" },
    ],
  });
  expect(afterEvent(start, { did: "type", changes: { "rows.0.n": "a" } }, lens)).toBe(start);
});

it("in a storm of typing, losses, clashes and undoing nothing typed is lost, and in the end both sides agree", () => {
  const seenKinds = new Set<string>();
  fc.assert(
    fc.property(fc.array(anything, { minLength: 60, maxLength: 100 }), (storm) => {
      const server = new Server();
      let draft = newDraft(START);
      /** What a person last typed into a field and has not given up since. */
      const wanted = new Map<string, string>();
      const happen = (event: DraftEvent<View>): void => {
        seenKinds.add(event.did);
        draft = after(draft, event);
      };
      const answer = (): void => {
        if (draft.sent) happen(server.save(draft.view.version, draft.sent));
      };
      const settle = (mine: boolean): void => {
        if (!draft.clash) return;
        if (!mine) draft.clash.mine.forEach((e) => wanted.delete(e.path));
        happen({ did: "settle", keep: mine ? draft.clash.mine : [] });
      };
      for (const step of storm) {
        if (step.do === "type") {
          happen({ did: "type", changes: { [step.field]: `t${step.value}` } });
          wanted.set(step.field, `t${step.value}`);
        } else if (step.do === "send") happen({ did: "send" });
        else if (step.do === "answer") answer();
        else if (step.do === "lose" && draft.sent) happen({ did: "get no answer" });
        else if (step.do === "settle") settle(step.mine);
        else if (step.do === "drop" && !draft.sent && !draft.clash) {
          const [before, wants] = [seen(draft), new Map(wanted)];
          happen({ did: "drop" });
          wanted.clear();
          // Every second time it was a slip of the hand.
          if (draft.dropped && draft.view.version % 2 === 0) {
            happen({ did: "take up" });
            expect(seen(draft)).toEqual(before);
            wants.forEach((value, path) => wanted.set(path, value));
          }
        } else if (step.do === "hear") happen({ did: "hear", view: server.view });
        else if (step.do === "other hand") {
          server.write([name(`o${step.value}`)]);
          if (isQuiet(draft)) wanted.delete("name");
        } else if (step.do === "undo") {
          for (const did of step.again ? (["undo", "redo"] as const) : (["undo"] as const)) {
            const which = (did === "undo" ? draft.done : draft.undone).at(-1);
            const back = which === undefined || !isQuiet(draft) ? null : server.takeBack(which);
            if (!back) break;
            happen({ did, view: back });
            wanted.clear();
          }
        }
        for (const [path, value] of wanted)
          if (draft.pending.some((e) => e.path === path)) expect(valueAt(seen(draft), path)).toBe(value);
      }
      // The line is good again, and the person goes on with what was typed here.
      for (let i = 0; i < 10 && !isQuiet(draft); i += 1) {
        settle(true);
        happen({ did: "send" });
        answer();
      }
      happen({ did: "hear", view: server.view });
      expect(isQuiet(draft)).toBe(true);
      expect(seen(draft)).toEqual(server.document);
    }),
    { seed: 21, numRuns: 300 },
  );
  expect([...seenKinds].sort()).toEqual(
    [
      "clash",
      "drop",
      "get no answer",
      "hear",
      "redo",
      "save",
      "send",
      "settle",
      "take up",
      "type",
      "undo",
    ].sort(),
  );
});
