/** The states of a form that keeps its own values: what stood before, what stands, and what was taken back. */
export interface History<V> {
  past: readonly V[];
  now: V;
  future: readonly V[];
  /** The field that the last change was typed in; what is typed on in it is one change. */
  field: string | null;
}

const MOST_STEPS = 50;

export const newHistory = <V>(now: V): History<V> => ({ past: [], now, future: [], field: null });

/** After something was typed in a field, or a list was changed (`field` null: always a change of its own). */
export function typed<V>(history: History<V>, now: V, field: string | null): History<V> {
  if (JSON.stringify(now) === JSON.stringify(history.now)) return history;
  const goesOn = field !== null && field === history.field;
  const past = goesOn ? history.past : [...history.past, history.now].slice(-MOST_STEPS);
  return { past, now, future: [], field };
}

/** One change back; the same history where there is none. */
export const undone = <V>(history: History<V>): History<V> =>
  history.past.length === 0
    ? history
    : {
        past: history.past.slice(0, -1),
        now: history.past.at(-1)!,
        future: [history.now, ...history.future],
        field: null,
      };

/** The change that was taken back last, made again. */
export const redone = <V>(history: History<V>): History<V> =>
  history.future.length === 0
    ? history
    : {
        past: [...history.past, history.now],
        now: history.future[0]!,
        future: history.future.slice(1),
        field: null,
      };
