import type { IncomingMessage, ServerResponse } from "node:http";
import { readShared } from "./blocks";
import type { Served } from "./image-file";

/** Part of a body that was asked for: from a byte up to and with another one; null for all of it, "none" for what is not there. */
export function rangeOf(
  header: string | undefined,
  bytes: number,
): { from: number; to: number } | null | "none" {
  const [, first = "", last = ""] = /^bytes=(\d*)-(\d*)$/.exec(header?.trim() ?? "") ?? [];
  // Several ranges, ones that run backwards, and what is none are answered with all (RFC 9110, 14.2).
  if (first === "" && last === "") return null;
  if (first === "") {
    const count = Math.min(Number(last), bytes);
    return count === 0 ? "none" : { from: bytes - count, to: bytes - 1 };
  }
  const from = Number(first);
  const to = last === "" ? bytes - 1 : Math.min(Number(last), bytes - 1);
  if (last !== "" && Number(last) < from) return null;
  return from >= bytes ? "none" : { from, to };
}

const written = (response: ServerResponse, bytes: Buffer): Promise<void> =>
  new Promise((resolve, reject) => response.write(bytes, (error) => (error ? reject(error) : resolve())));

/** Where the bytes of a served file between two of its own places lie in the image. */
function partOf({ spans }: Served, from: number, to: number): Served["spans"] {
  let at = 0;
  return spans.flatMap(({ offset, length }) => {
    const [first, last] = [Math.max(from - at, 0), Math.min(to - at, length - 1)];
    at += length;
    return first <= last ? [{ offset: offset + first, length: last - first + 1 }] : [];
  });
}

/** Sends the bytes of a served file between two of its own places. Throws when whoever asked goes away, or when the file does. */
async function sendBytes(served: Served, from: number, to: number, response: ServerResponse): Promise<void> {
  const gone = new Promise<never>((_, reject) =>
    response.once("close", () => reject(new Error("The connection was closed."))),
  );
  // Without anybody who waits for it any more it is no error.
  gone.catch(() => undefined);
  await readShared(served.path, partOf(served, from, to), (piece) =>
    Promise.race([written(response, piece), gone]),
  );
  // All of it has gone. Who has read the last byte may close before this end is written: that is no cut.
  response.end();
}

/** Sends bytes of the image folder with their exact length, a part of them where one is asked for; how many went out, and whether those were all of the file. */
export async function sendFile(
  request: IncomingMessage,
  response: ServerResponse,
  served: Served,
): Promise<{ whole: boolean; bytes: number }> {
  const range = rangeOf(request.headers.range, served.bytes);
  const common = {
    "Content-Type": "application/octet-stream",
    "Accept-Ranges": "bytes",
    "Cache-Control": "no-store",
  };
  if (range === "none") {
    response.writeHead(416, { ...common, "Content-Range": `bytes */${served.bytes}`, "Content-Length": 0 });
    response.end();
    return { whole: false, bytes: 0 };
  }
  const { from, to } = range ?? { from: 0, to: served.bytes - 1 };
  response.writeHead(range ? 206 : 200, {
    ...common,
    ...(range && { "Content-Range": `bytes ${from}-${to}/${served.bytes}` }),
    "Content-Length": to - from + 1,
  });
  if (request.method === "HEAD" || served.bytes === 0) {
    response.end();
    return { whole: served.bytes === 0 && request.method !== "HEAD", bytes: 0 };
  }
  try {
    await sendBytes(served, from, to, response);
  } catch {
    // Whoever asked went away, or the file did: the connection is cut, so that nobody takes a part for the whole.
    response.destroy();
    return { whole: false, bytes: 0 };
  }
  return { whole: from === 0 && to === served.bytes - 1, bytes: to - from + 1 };
}

/** Sends a text with its exact length; true when all of it went out. */
export async function sendText(
  request: IncomingMessage,
  response: ServerResponse,
  text: string | Uint8Array,
  status = 200,
): Promise<boolean> {
  const body = Buffer.from(text as string);
  response.writeHead(status, {
    "Content-Type": typeof text === "string" ? "text/plain; charset=utf-8" : "application/octet-stream",
    "Content-Length": body.length,
    "Cache-Control": "no-store",
  });
  if (request.method === "HEAD") {
    response.end();
    return false;
  }
  const done = new Promise<boolean>((resolve) => {
    response.on("finish", () => resolve(true));
    response.on("close", () => resolve(response.writableFinished));
  });
  response.end(body);
  return done;
}
