import type { InStatement, ResultSet, Transaction } from "@libsql/client";

const MOST_STATEMENTS = 100;
const MOST_BYTES = 1_000_000;

const sqlOf = (statement: InStatement | string): string =>
  typeof statement === "string" ? statement : statement.sql;

/** An INSERT whose answer nobody looks at. */
const isPlainInsert = (sql: string): boolean => /^\s*insert\s/i.test(sql) && !/\sreturning\s/i.test(sql);

function bytesOf(statement: InStatement | string): number {
  if (typeof statement === "string" || !Array.isArray(statement.args)) return 200;
  return statement.args.reduce<number>((sum, arg) => {
    if (typeof arg === "string") return sum + arg.length;
    return sum + (arg instanceof ArrayBuffer || ArrayBuffer.isView(arg) ? arg.byteLength : 8);
  }, 100);
}

const INSERTED: ResultSet = {
  columns: [],
  columnTypes: [],
  rows: [],
  rowsAffected: 1,
  lastInsertRowid: undefined,
  toJSON: () => ({}),
};

/**
 * A transaction on a database server, where each statement costs a round trip: plain INSERTs are held back and go out
 * together with the next statement, or before the commit. They see and are seen in the same order as without it; one that
 * is refused fails the statement that it went out with, and so the transaction.
 */
export function insertsBehind(tx: Transaction): Transaction {
  let held: InStatement[] = [];
  let bytes = 0;
  const flush = async (more: InStatement[]): Promise<ResultSet[]> => {
    const all = [...held, ...more];
    held = [];
    bytes = 0;
    return all.length === 0 ? [] : tx.batch(all);
  };
  const execute = async (statement: InStatement): Promise<ResultSet> => {
    if (isPlainInsert(sqlOf(statement))) {
      held.push(statement);
      bytes += bytesOf(statement);
      if (held.length >= MOST_STATEMENTS || bytes >= MOST_BYTES) await flush([]);
      return INSERTED;
    }
    if (held.length === 0) return tx.execute(statement);
    return (await flush([statement])).at(-1) ?? INSERTED;
  };
  return new Proxy(tx, {
    get(target, name) {
      if (name === "execute") return execute;
      if (name === "batch") return async (all: InStatement[]) => (await flush(all)).slice(-all.length);
      if (name === "commit") return async () => (await flush([]), target.commit());
      const own = Reflect.get(target, name, target) as unknown;
      return typeof own === "function" ? (own.bind(target) as unknown) : own;
    },
  });
}
