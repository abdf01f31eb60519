import { fieldChange, valueAt, withValueAt, type Edit } from "@/core/document";
import type { Problem } from "@/core/result";

/** Another hand saved first: what stands there, whose it is, and what was typed here meanwhile. */
export interface Clash<V> {
  view: V;
  by: string;
  at: string;
  mine: readonly Edit[];
}

/**
 * A document that is being worked on, with what was typed over it and is not saved yet. `view` is what the server said of
 * it last. A clash, a refusal or a lost server leaves what was typed where it is.
 */
export interface Draft<V> {
  view: V;
  pending: readonly Edit[];
  /** What is on its way to the server; null while nothing is. */
  sent: readonly Edit[] | null;
  /** How often in a row nothing was answered. */
  unanswered: number;
  problems: readonly Problem[];
  clash: Clash<V> | null;
  /** Versions that own changes made and undo takes back, the last one last. */
  done: readonly number[];
  /** Versions that own undoing made and redo takes back. */
  undone: readonly number[];
  /** What was typed and given up before it was sent; redo types it again. Null where that was not the last change. */
  dropped: readonly Edit[] | null;
}

/** Where a view holds its document and its version. */
export interface Lens<V> {
  document(view: V): unknown;
  version(view: V): number;
}

export type DraftEvent<V> =
  | { did: "type"; changes: Readonly<Record<string, unknown>> }
  | { did: "send" }
  | { did: "save"; view: V }
  /** The server took a change back, or made it again. */
  | { did: "undo" | "redo"; view: V }
  | { did: "get no answer" }
  | { did: "get refused"; problems: readonly Problem[] }
  | { did: "clash"; clash: Omit<Clash<V>, "mine"> }
  /** What stays of one's own is made again on the other version. */
  | { did: "settle"; keep: readonly Edit[] }
  /** The document as another hand, or another door of the page, has left it. */
  | { did: "hear"; view: V }
  /** What was typed and is not on its way is given up, and typed again. */
  | { did: "drop" | "take up" };

const MOST_STEPS = 50;
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

export const newDraft = <V>(view: V): Draft<V> => ({
  ...{
    view,
    pending: [],
    sent: null,
    unanswered: 0,
    problems: [],
    clash: null,
    done: [],
    undone: [],
    dropped: null,
  },
});

/** The document as it is shown: what the server said last, with everything typed since. */
export const shown = <V>(draft: Draft<V>, lens: Lens<V>): unknown =>
  draft.pending.reduce<unknown>(
    (document, e) => withValueAt(document, e.path, e.after) ?? document,
    lens.document(draft.view),
  );

/** Nothing is typed, on its way, or in the way. */
export const isQuiet = <V>({ pending, sent, clash }: Draft<V>): boolean =>
  pending.length === 0 && sent === null && clash === null;

/** Whether what was typed should be sent now. */
export const wantsSending = <V>({ pending, sent, clash, problems }: Draft<V>): boolean =>
  pending.length > 0 && sent === null && clash === null && problems.length === 0;

/** Changes at paths that may lead into lists, as edits of fields; two in one list are one edit of it. */
function editsOf(document: unknown, changes: Readonly<Record<string, unknown>>): Edit[] {
  let next = document;
  const fields = Object.entries(changes).map(([path, value]) => {
    const [field, after] = fieldChange(next, path, value);
    next = withValueAt(next, field, after) ?? next;
    return [field, after] as const;
  });
  return [...new Map(fields)]
    .map(([path, after]) => ({ path, before: valueAt(document, path), after }))
    .filter((e) => !same(e.before, e.after));
}

function typed<V>(draft: Draft<V>, changes: Readonly<Record<string, unknown>>, lens: Lens<V>): Draft<V> {
  const edits = editsOf(shown(draft, lens), changes);
  if (edits.length === 0) return draft;
  const first = (e: Edit): Edit => ({
    ...e,
    before: draft.pending.find((p) => p.path === e.path)?.before ?? e.before,
  });
  const kept = draft.pending.filter((p) => !edits.some((e) => e.path === p.path));
  const pending = [...kept, ...edits.map(first)];
  // What is typed while two versions are compared is one of them.
  const clash = draft.clash && { ...draft.clash, mine: pending };
  return { ...draft, pending, clash, problems: [], undone: [], dropped: null };
}

/** What was sent is saved; what was typed since then waits. */
const saved = <V>(draft: Draft<V>, view: V, lens: Lens<V>): Draft<V> => ({
  ...draft,
  view,
  pending: draft.pending.filter((e) => !draft.sent?.some((s) => s.path === e.path && same(s.after, e.after))),
  ...{ sent: null, unanswered: 0, problems: [] },
  done: [...draft.done, lens.version(view)].slice(-MOST_STEPS),
});

function settled<V>(draft: Draft<V>, keep: readonly Edit[], lens: Lens<V>): Draft<V> {
  if (!draft.clash) return draft;
  const { view } = draft.clash;
  const before = (e: Edit): Edit => ({ ...e, before: valueAt(lens.document(view), e.path) });
  return { ...draft, view, clash: null, pending: keep.map(before) };
}

/** The draft after something happened to it. */
export function afterEvent<V>(draft: Draft<V>, event: DraftEvent<V>, lens: Lens<V>): Draft<V> {
  switch (event.did) {
    case "type":
      return typed(draft, event.changes, lens);
    case "send":
      return wantsSending(draft) ? { ...draft, sent: draft.pending } : draft;
    case "save":
      return saved(draft, event.view, lens);
    case "undo": {
      const undone = [...draft.undone, lens.version(event.view)].slice(-MOST_STEPS);
      return { ...draft, view: event.view, done: draft.done.slice(0, -1), undone, problems: [] };
    }
    case "redo": {
      const done = [...draft.done, lens.version(event.view)].slice(-MOST_STEPS);
      return { ...draft, view: event.view, done, undone: draft.undone.slice(0, -1), problems: [] };
    }
    case "get no answer":
      return { ...draft, sent: null, unanswered: draft.unanswered + 1 };
    case "get refused":
      return { ...draft, sent: null, unanswered: 0, problems: event.problems };
    case "clash":
      return { ...draft, sent: null, unanswered: 0, clash: { ...event.clash, mine: draft.pending } };
    case "settle":
      return settled(draft, event.keep, lens);
    case "hear":
      return isQuiet(draft) && lens.version(event.view) >= lens.version(draft.view)
        ? { ...draft, view: event.view }
        : draft;
    case "drop":
      return draft.sent ? draft : { ...draft, pending: [], problems: [], dropped: draft.pending };
    case "take up": {
      const changes = (draft.dropped ?? []).map((e) => [e.path, e.after] as const);
      return { ...typed(draft, Object.fromEntries(changes), lens), dropped: null };
    }
  }
}
