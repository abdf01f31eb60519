import { createServer, type IncomingMessage, type Server, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import Database from "libsql";

// A small stand-in for a libSQL server: the JSON pipeline (version 2) of its HTTP protocol over a file, with a delay for
// each round trip, cuts, and requests that are never answered.

type Value =
  | { type: "null" }
  | { type: "integer"; value: string }
  | { type: "float"; value: number }
  | { type: "text"; value: string }
  | { type: "blob"; base64: string };
interface Stmt {
  sql?: string | null;
  sql_id?: number | null;
  args?: Value[];
  named_args?: { name: string; value: Value }[];
  want_rows?: boolean;
}
type Cond =
  | { type: "ok" | "error"; step: number }
  | { type: "not"; cond: Cond }
  | { type: "and" | "or"; conds: Cond[] }
  | { type: "is_autocommit" };
interface Ask {
  type: string;
  stmt?: Stmt;
  batch?: { steps: { condition?: Cond | null; stmt: Stmt }[] };
  sql?: string | null;
  sql_id?: number;
}

const plain = (v: Value): unknown =>
  v.type === "null"
    ? null
    : v.type === "integer"
      ? BigInt(v.value)
      : v.type === "blob"
        ? Buffer.from(v.base64, "base64")
        : v.value;
const wire = (v: unknown): Value =>
  v === null || v === undefined
    ? { type: "null" }
    : typeof v === "bigint"
      ? { type: "integer", value: String(v) }
      : typeof v === "number"
        ? { type: "float", value: v }
        : typeof v === "string"
          ? { type: "text", value: v }
          : { type: "blob", base64: Buffer.from(v as Uint8Array).toString("base64") };

/** One connection with the texts that were stored on it. */
class Stream {
  usedAt = Date.now();
  readonly db: Database.Database;
  private readonly texts = new Map<number, string>();
  constructor(file: string) {
    // It says busy at once, as a server does that has others to serve; whoever asked tries again.
    this.db = new Database(file, { timeout: 0 });
  }

  execute({ sql, sql_id, args = [], named_args = [] }: Stmt) {
    const statement = this.db.prepare(sql ?? this.texts.get(sql_id ?? -1) ?? "");
    statement.safeIntegers(true);
    const given = named_args.length
      ? Object.fromEntries(named_args.map((a) => [a.name.replace(/^[:@$]/, ""), plain(a.value)]))
      : args.map(plain);
    let rows: unknown[][] = [];
    let cols: { name: string | null; decltype: string | null }[] = [];
    let changes = 0;
    let last: string | null = null;
    if (statement.reader) {
      statement.raw(true);
      cols = statement.columns().map((c) => ({ name: c.name, decltype: c.type }));
      rows = statement.all(given as never) as unknown[][];
    } else {
      const info = statement.run(given as never);
      changes = Number(info.changes);
      last = String(info.lastInsertRowid);
    }
    return { cols, rows: rows.map((r) => r.map(wire)), affected_row_count: changes, last_insert_rowid: last };
  }

  answer(ask: Ask): object {
    if (ask.type === "execute") return { type: "execute", result: this.execute(ask.stmt!) };
    if (ask.type === "batch") return { type: "batch", result: this.batch(ask.batch!.steps) };
    if (ask.type === "sequence") this.db.exec(ask.sql ?? "");
    else if (ask.type === "store_sql") this.texts.set(ask.sql_id!, ask.sql ?? "");
    else if (ask.type === "close_sql") this.texts.delete(ask.sql_id!);
    else if (ask.type === "get_autocommit")
      return { type: "get_autocommit", is_autocommit: !this.db.inTransaction };
    return { type: ask.type };
  }

  private batch(steps: { condition?: Cond | null; stmt: Stmt }[]) {
    const results: unknown[] = [];
    const errors: unknown[] = [];
    const holds = (c: Cond): boolean => {
      if (c.type === "ok") return results[c.step] !== null && results[c.step] !== undefined;
      if (c.type === "error") return errors[c.step] !== null && errors[c.step] !== undefined;
      if (c.type === "not") return !holds(c.cond);
      if (c.type === "and") return c.conds.every(holds);
      if (c.type === "or") return c.conds.some(holds);
      return !this.db.inTransaction;
    };
    for (const { condition, stmt } of steps) {
      let result: unknown = null;
      let error: unknown = null;
      if (!condition || holds(condition))
        try {
          result = this.execute(stmt);
        } catch (e) {
          error = failure(e);
        }
      results.push(result);
      errors.push(error);
    }
    return { step_results: results, step_errors: errors };
  }
}

const failure = (e: unknown) => ({
  message: String((e as Error).message),
  code: (e as { code?: string }).code ?? "",
});

export class LibsqlServer {
  /** Milliseconds that each request takes before it is looked at. */
  delay = 0;
  /** A stream that nobody asks for so long is ended and rolled back, in milliseconds; real servers allow some seconds. */
  idle = 8000;
  /** Round trips so far. */
  trips = 0;
  /** How many of the requests so far could only be asked when another had been answered: the longest row of them. */
  waves = 0;
  /** What becomes of the next requests: cut off, or never answered. */
  next: ("cut" | "silence")[] = [];
  private readonly streams = new Map<string, Stream>();
  private server: Server | null = null;
  private count = 0;

  constructor(readonly file: string) {}

  async start(port = 0): Promise<string> {
    this.server = createServer((request, response) => void this.serve(request, response));
    await new Promise<void>((done) => this.server!.listen(port, "127.0.0.1", done));
    return `http://127.0.0.1:${(this.server.address() as AddressInfo).port}`;
  }

  async stop(): Promise<void> {
    this.server?.closeAllConnections();
    await new Promise((done) => this.server?.close(done));
    for (const stream of this.streams.values()) stream.db.close();
    this.streams.clear();
  }

  private endIdle(): void {
    for (const [name, stream] of this.streams)
      if (Date.now() - stream.usedAt > this.idle) {
        stream.db.close();
        this.streams.delete(name);
      }
  }

  private async serve(request: IncomingMessage, response: ServerResponse): Promise<void> {
    if (request.method !== "POST") {
      response.writeHead(request.url === "/v2" ? 200 : 404).end();
      return;
    }
    let text = "";
    for await (const part of request) text += String(part);
    this.trips += 1;
    const wave = this.waves + 1;
    const fate = this.next.shift();
    if (fate === "cut") return void request.socket.destroy();
    if (fate === "silence") return;
    await new Promise((r) => setTimeout(r, this.delay));
    this.endIdle();
    const { baton, requests } = JSON.parse(text) as { baton: string | null; requests: Ask[] };
    let name = baton;
    let stream = name ? this.streams.get(name) : undefined;
    if (!stream) {
      if (name)
        return void response.writeHead(400).end('{"message":"the stream is gone","code":"STREAM_EXPIRED"}');
      stream = new Stream(this.file);
      name = `stream-${(this.count += 1)}`;
      this.streams.set(name, stream);
    }
    stream.usedAt = Date.now();
    const results = requests.map((ask) => {
      try {
        return { type: "ok", response: stream.answer(ask) };
      } catch (e) {
        return { type: "error", error: failure(e) };
      }
    });
    if (requests.some((r) => r.type === "close")) {
      stream.db.close();
      this.streams.delete(name!);
      name = null;
    }
    response.setHeader("Content-Type", "application/json");
    this.waves = Math.max(this.waves, wave);
    response.end(JSON.stringify({ baton: name, base_url: null, results }));
  }
}
