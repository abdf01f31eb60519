import type { Client, TransactionMode } from "@libsql/client";
import { insertsBehind } from "./behind";
import { troubleOf } from "./trouble";

export interface Patience {
  /** Until when (by performance.now()) a call that begins now is tried again while another program holds the file. */
  lockedUntil(): number;
  /** How long one call to a database server may take, in milliseconds; null for a file, whose calls cannot be cut short. */
  callMilliseconds: number | null;
}

const FIRST_PAUSE = 20;
const LONGEST_PAUSE = 250;
const pause = (milliseconds: number): Promise<void> =>
  new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Rejects when a call has no answer after `milliseconds`; what it was to do is then unknown, so it is not tried again. */
async function within<T>(work: Promise<T>, milliseconds: number | null): Promise<T> {
  if (milliseconds === null) return work;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(
      () => reject(Object.assign(new Error(`no answer in ${milliseconds} ms`), { code: "DERRICK_LATE" })),
      milliseconds,
    );
  });
  try {
    return await Promise.race([work, late]);
  } finally {
    clearTimeout(timer);
  }
}

/**
 * A client that waits for a foreign lock without blocking the process. SQLite's own waiting (busy_timeout) stops the event
 * loop, and with it every page; so the client is opened with none, and what was refused is tried again here, with pauses.
 * Only calls that change nothing when they are refused are repeated: a BEGIN, a single statement, a batch.
 * A connection that was refused something is dropped before the next call: libSQL leaves the refused statement open on
 * it, and every later commit there fails.
 */
export function patient(client: Client, { lockedUntil, callMilliseconds }: Patience): Client {
  let spoilt = false;
  let transactions = 0;

  async function tried<T>(call: () => Promise<T>): Promise<T> {
    const until = lockedUntil();
    for (let wait = FIRST_PAUSE; ; wait = Math.min(wait * 2, LONGEST_PAUSE)) {
      if (spoilt && transactions === 0) {
        spoilt = false;
        await client.reconnect();
      }
      try {
        return await within(call(), callMilliseconds);
      } catch (error) {
        const trouble = troubleOf(error);
        if (trouble) spoilt = true;
        if (trouble?.kind === "locked" && performance.now() < until) {
          await pause(wait);
          continue;
        }
        throw trouble ?? error;
      }
    }
  }

  async function transaction(mode?: TransactionMode) {
    const begun = await tried(() => client.transaction(mode));
    transactions += 1;
    let over = false;
    const end = (): void => {
      if (!over) transactions -= 1;
      over = true;
    };
    const watched = new Proxy(begun, {
      get(target, name) {
        const own = Reflect.get(target, name, target) as unknown;
        if (typeof own !== "function") return own;
        const call = own.bind(target) as (...args: unknown[]) => unknown;
        if (name === "close") return () => (end(), call());
        return async (...args: unknown[]) => {
          try {
            return await within(Promise.resolve(call(...args)), callMilliseconds);
          } catch (error) {
            const trouble = troubleOf(error);
            if (trouble) spoilt = true;
            // The server may still hold what was begun; the connection is given up and the server ends it.
            if (trouble?.kind === "unreachable") target.close();
            throw trouble ?? error;
          } finally {
            if (name === "commit" || name === "rollback") end();
          }
        };
      },
    });
    // A file answers at once; a server is asked as seldom as can be.
    return callMilliseconds === null ? watched : insertsBehind(watched);
  }

  return new Proxy(client, {
    get(target, name) {
      if (name === "transaction") return transaction;
      const own = Reflect.get(target, name, target) as unknown;
      if (typeof own !== "function") return own;
      const call = own.bind(target) as (...args: unknown[]) => unknown;
      return ["execute", "batch", "migrate", "executeMultiple"].includes(String(name))
        ? (...args: unknown[]) => tried(() => Promise.resolve(call(...args)))
        : call;
    },
  });
}
