import type { IncomingMessage, ServerResponse } from "node:http";
import {
  callerSchema,
  fileClosed,
  firstBootScript,
  grubCode,
  grubInstall,
  grubLocal,
  grubWait,
  ipxeCode,
  ipxeFirst,
  ipxeInstall,
  ipxeLocal,
  ipxeWait,
  LONGEST_CODE,
  macIn,
  NO_MAC,
  packedFiles,
  PACKED_NAME,
  reportClosed,
  REPORTS,
  startClosed,
  toldIn,
  treeClosed,
  type ArmingState,
  type ArmingWalk,
  type BootEvent,
  type Caller,
} from "@/core/netboot";
import { bootRows, type Stamp } from "@/db";
import type { Desk } from "../desk";
import { hear } from "../run-log";
import { namedAnswers, planOf } from "./answers";
import { decideFor, hashOf } from "./decide";
import { gathered } from "./gathered";
import { fileInside, wholeImage, type Served } from "./image-file";
import { armingsOf, standingsOf } from "./standing";
import { sendFile, sendText } from "./send";
import { filesAt, packedAt, readyWhen, titleOf } from "./told";

/** An arming, and what it was asked for and told when a request came. */
type Row = bootRows.ArmingRow & { walk: ArmingWalk };

/** One request to the boot service. */
interface Call {
  desk: Desk;
  /** Where machines reach the service, without a slash at the end. */
  base: string;
  /** The public key that whoever asks believes; "" over plain http. */
  pin: string;
  request: IncomingMessage;
  response: ServerResponse;
  url: URL;
  /** Its path and query as they came over the line. */
  raw: string;
  address: string;
  /** Where the files of the asking machine are, with a slash at the end; "" for who has no token. */
  at: string;
}

const [MOST_WORDS, MOST_BODY] = [400, 4096];
/** So much of a body goes by unread, and so long it may take. */
const [MOST_UNREAD, BODY_MILLISECONDS] = [2 ** 24, 10_000];

/** What a token opens; null for one that opens nothing. */
const opened = gathered<{ desk: Desk; token: string }, Row | null>(async (all) => {
  const { db } = all[0]!.desk;
  const hashes = all.map(({ token }) => hashOf(token));
  const ids = await bootRows.idsByTokens(db, hashes);
  const rows = await armingsOf(db, [...new Set(ids.values())]);
  const standings = await standingsOf(db, rows);
  const byId = new Map(rows.map((row) => [row.id, row]));
  return hashes.map((hash) => {
    const row = byId.get(ids.get(hash) ?? "");
    return row ? { ...row, walk: standings.get(row.id)! } : null;
  });
});

/** What armed machines asked for and told; their runs go on by it. */
const noted = gathered<{ desk: Desk; row: bootRows.ArmingRow; event: BootEvent; stamp: Stamp }, void>((all) =>
  all[0]!.desk.write(async (tx) => {
    await bootRows.add(
      tx,
      all.map(({ row, event, stamp }) => ({ armingId: row.id, mac: "", event, stamp })),
    );
    const builds = new Map(all.map(({ desk, row }) => [row.buildId, desk]));
    for (const [buildId, desk] of builds) await hear(desk, tx, buildId);
    return all.map(() => undefined);
  }),
);

/** Writes down what was asked or told. */
const note = ({ desk }: Call, row: bootRows.ArmingRow, event: BootEvent): Promise<void> =>
  noted({ desk, row, event, stamp: desk.stamp() });

const stateOf = ({ desk }: Call, { walk }: Row): ArmingState => walk.at(desk.now());

/** Nothing is said of what is there: whoever guesses learns nothing. */
const nothing = async ({ request, response }: Call): Promise<void> =>
  void (await sendText(request, response, "Not found.\n", 404));

function callerOf({ raw, address }: Call): { caller: Caller; code: string } | null {
  const told = toldIn(raw);
  const mac = macIn(told.mac);
  const word = (name: keyof typeof told): string => told[name].replace(/\p{Cc}/gu, " ").slice(0, 200);
  if (mac === null) return null;
  const caller = callerSchema.parse({
    ...{ mac, serial: word("serial"), uuid: word("uuid") },
    ...{ maker: word("maker"), model: word("model"), platform: word("platform"), address },
  });
  return { caller, code: told.code.slice(0, LONGEST_CODE) };
}

/** What each boot loader is told, in its own words. */
const LOADERS = {
  ipxe: {
    ...{ installs: ipxeInstall, local: ipxeLocal },
    waits: (why: string, _again: string) => ipxeWait(why),
    code: (why: string, _again: string) => ipxeCode(why),
  },
  grub: { installs: grubInstall, waits: grubWait, local: grubLocal, code: grubCode },
};

/** A machine asks what to do: the armed one is given its installation under a new token, every other its own disk. */
async function script(call: Call, loader: (typeof LOADERS)[keyof typeof LOADERS]): Promise<void> {
  const { desk, base, request, response, url } = call;
  const say = (text: string): Promise<boolean> => sendText(request, response, text);
  const asks = callerOf(call);
  if (asks === null) return void (await say(loader.local(NO_MAC)));
  const isAsked = request.method !== "HEAD";
  const decision = await decideFor(desk, { ...asks, isSecure: call.pin !== "" }, isAsked);
  // A code that was wrong is not sent again with the next one: the first of two is what counts.
  if (decision.kind === "asks code")
    return void (await say(loader.code(decision.words, url.href.replace(/&code=[^&]*$/, ""))));
  if (decision.kind === "waits") return void (await say(loader.waits(decision.words, url.href)));
  if (decision.kind === "local") return void (await say(loader.local(decision.words)));
  const at = `${base}/t/${decision.token}/`;
  const files = decision.isPacked ? packedAt(at, decision.arming) : filesAt(at, decision.arming);
  const whole = files !== null && (await say(loader.installs(files, titleOf(decision.arming))));
  // What broke off on its way was not given: its machine asks again.
  if (!whole && isAsked)
    await note(call, decision.row, { kind: "fetched", what: "script", bytes: 0, whole, of: 0 });
}

/** A file of an armed machine, by the part of its path behind the token. */
async function file(call: Call, row: Row, path: string): Promise<void> {
  const { desk } = call;
  const state = stateOf(call, row);
  const isTree = path === "image" || path.startsWith("tree/");
  const closed =
    path === "first-boot"
      ? startClosed(state)
      : isTree
        ? treeClosed(state)
        : fileClosed(row.arming, state, desk.now());
  const refuse = async (words: string): Promise<void> => {
    await note(call, row, { kind: "refused", words: `${path.slice(0, 200)}: ${words}` });
    await nothing(call);
  };
  if (closed !== null) return refuse(closed);
  if (path.startsWith("answers/") || path === "first-boot" || path === "packed")
    return text(call, row, path, refuse);
  const { fileName, sizeBytes } = row.arming.image;
  const inside = insideOf(row, path);
  if (inside === null) return refuse("no such file");
  const served =
    inside === "" ? await wholeImage(fileName, sizeBytes) : await fileInside(fileName, sizeBytes, inside);
  if (!served.ok) return refuse(served.problems.map((p) => p.message).join(" "));
  await sent(call, row, path, served.value);
}

/** Which file inside the image a path is about; "" for the image itself, null for none. */
function insideOf({ arming }: Row, path: string): string | null {
  if (path === "kernel") return arming.kernel;
  if (path === "image") return "";
  const [, number] = /^initrd\/(\d{1,2})$/.exec(path) ?? [];
  if (number) return arming.initrd[Number(number) - 1] ?? null;
  return path.startsWith("tree/") && path.length > "tree/".length ? path.slice("tree".length) : null;
}

async function sent(call: Call, row: Row, path: string, served: Served): Promise<void> {
  const { request, response } = call;
  const { whole, bytes } = await sendFile(request, response, served);
  if (request.method === "HEAD") return;
  await note(call, row, { kind: "fetched", what: path.replace("/", " "), bytes, whole, of: served.bytes });
}

/** An answer file or the script of the first start, written anew for this token; what was changed since is not given out. */
async function text(
  call: Call,
  row: Row,
  path: string,
  refuse: (words: string) => Promise<void>,
): Promise<void> {
  const { request, response, desk, base, at, pin } = call;
  const { arming } = row;
  const report = `${at}report/`;
  const plan = await planOf(desk, arming.build.id);
  if (!plan) return refuse("the build was deleted");
  const answers = await namedAnswers(desk, plan, arming.build.id, { script: `${at}first-boot`, report, pin });
  if (!answers.ok) return refuse(answers.problems.map((p) => p.message).join(" "));
  if (answers.value.digest !== arming.digest)
    return refuse("the sheet or its data has changed since the machine was armed: arm it again");
  if (path === "first-boot") {
    const { firstStart: actions, secrets } = answers.value;
    const whole = await sendText(
      request,
      response,
      firstBootScript({ report, actions, secrets, pin, ready: readyWhen(base, pin) }),
    );
    return note(call, row, { kind: "fetched", what: path, bytes: 0, whole, of: 0 });
  }
  const isPacked = path === "packed";
  const found = answers.value.files.find(({ name }) => isPacked || `answers/${name}` === path);
  if (!found) return refuse("no such file");
  const body = isPacked ? packedFiles([{ name: PACKED_NAME, text: found.text }]) : found.text;
  const whole = await sendText(request, response, body);
  // Packed or not, what was read are the answers.
  const what = `answers ${found.name}`;
  if (request.method !== "HEAD") await note(call, row, { kind: "fetched", what, bytes: 0, whole, of: 0 });
}

/**
 * The first part of a body, in the form of a query; null for one that does not end in time. The rest goes by unread, since whoever
 * is cut in the middle of sending does not read the answer; of what never ends so much that it is answered, and then cut.
 */
async function bodyOf(request: IncomingMessage): Promise<URLSearchParams | null> {
  const kept: Buffer[] = [];
  let bytes = 0;
  const isThere = await new Promise<boolean>((resolve) => {
    const late = setTimeout(() => resolve(false), BODY_MILLISECONDS);
    const end = (isWhole: boolean) => () => {
      clearTimeout(late);
      resolve(isWhole);
    };
    request.on("data", (chunk: Buffer) => {
      if (bytes < MOST_BODY) kept.push(chunk);
      bytes += chunk.length;
      if (bytes > MOST_UNREAD) end(true)();
    });
    request.on("end", end(true)).on("error", end(false)).on("close", end(false));
  });
  return isThere ? new URLSearchParams(Buffer.concat(kept).toString("utf8").slice(0, MOST_BODY)) : null;
}

/** A machine tells how far it is. Told twice, it is kept twice and changes nothing. */
async function report(call: Call, row: Row, word: string): Promise<void> {
  const { request, response, url } = call;
  const stage = REPORTS.find((r) => r.replace(" ", "-") === word);
  const closed = reportClosed(stateOf(call, row));
  if (!stage || closed !== null || request.method === "HEAD") return nothing(call);
  const query = request.method === "POST" ? await bodyOf(request) : url.searchParams;
  if (!request.complete) response.setHeader("Connection", "close");
  if (query === null)
    return void (await sendText(request, response, "The report was incomplete and not saved.\n", 408));
  const told = query.get("words");
  const words = (told ?? "")
    .replace(/\p{Cc}/gu, " ")
    .trim()
    .slice(0, MOST_WORDS);
  await note(call, row, { kind: "reported", stage, words });
  await sendText(request, response, "noted\n");
}

/** The path as it stands on the line, without what could lead elsewhere; null for one that does. */
function pathOf(raw: string): string | null {
  let path: string;
  try {
    path = decodeURIComponent(raw.split("?")[0] ?? "");
  } catch {
    return null;
  }
  return /\0|\\|\/\.{1,2}(\/|$)|\/\/|%2e/i.test(path) ? null : path;
}

/**
 * Answers one request; all that an armed machine does not need is not there. `base` is where it was asked, and `pin` the public
 * key that the asker believes there, "" over plain http.
 */
export async function serveBoot(
  desk: Desk,
  base: string,
  request: IncomingMessage,
  response: ServerResponse,
  pin = "",
): Promise<void> {
  const raw = request.url ?? "/";
  const path = pathOf(raw);
  const url = new URL(`${base}${path === null ? "/" : raw}`);
  const [, token = "", rest = ""] = /^\/t\/([A-Za-z0-9_-]{32})\/(.{1,400})$/.exec(path ?? "") ?? [];
  const at = token ? `${base}/t/${token}/` : "";
  const call: Call = {
    desk,
    base,
    pin,
    request,
    response,
    url,
    raw,
    at,
    address: request.socket.remoteAddress ?? "",
  };
  const isRead = request.method === "GET" || request.method === "HEAD";
  if (path === null || (!isRead && request.method !== "POST")) return nothing(call);
  if (isRead && path === "/boot.ipxe") return void (await sendText(request, response, ipxeFirst()));
  if (isRead && path === "/script") return script(call, LOADERS.ipxe);
  if (isRead && path === "/grub.cfg") return script(call, LOADERS.grub);
  const row = token ? await opened({ desk, token }) : null;
  if (!row) return nothing(call);
  if (rest.startsWith("report/")) return report(call, row, rest.slice("report/".length));
  return isRead ? file(call, row, rest) : nothing(call);
}
