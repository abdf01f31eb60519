import { randomBytes } from "node:crypto";
import type { IncomingMessage, ServerResponse } from "node:http";
import { TOO_NESTED, watchNesting } from "./inside";
import { judge, type Knock } from "./judge";

const one = (value: string | string[] | undefined): string | undefined =>
  Array.isArray(value) ? value[0] : value;

/** The head of a request as the door sees it. */
export function knockOf({ method = "GET", url = "/", headers }: IncomingMessage): Knock {
  const length = headers["content-length"];
  return {
    method,
    path: url.split("?")[0]!,
    host: headers.host?.toLowerCase(),
    origin: headers.origin?.toLowerCase(),
    site: one(headers["sec-fetch-site"]),
    mode: one(headers["sec-fetch-mode"]),
    dest: one(headers["sec-fetch-dest"]),
    contentType: headers["content-type"],
    action: headers["next-action"] !== undefined,
    length: length === undefined ? undefined : Number(length),
  };
}

/**
 * What the browser may do with a page: scripts that carry this answer's nonce and what they load, nothing from anywhere
 * else, no frame around it. Styles keep 'unsafe-inline': widths and colours of drawings are set in attributes.
 */
export const contentPolicy = (nonce: string, dev: boolean): string =>
  [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${dev ? " 'unsafe-eval'" : ""}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    `connect-src 'self'${dev ? " ws:" : ""}`,
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");

/** Files and JSON are never run as a page, whatever they hold. */
const FILE_POLICY = "default-src 'none'; frame-ancestors 'none'; sandbox";

/** Scripts that ship with Derrick; the worker that computes checksums compiles its own WebAssembly. */
const SHIPPED_POLICY =
  "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'; frame-ancestors 'none'";

const policyFor = (path: string, dev: boolean): string => {
  if (path.startsWith("/api/")) return FILE_POLICY;
  if (path.startsWith("/_next/static/") && !dev) return SHIPPED_POLICY;
  return contentPolicy(randomBytes(16).toString("base64"), dev);
};

const HEADERS = {
  "X-Content-Type-Options": "nosniff",
  "X-Frame-Options": "DENY",
  "Referrer-Policy": "same-origin",
  "Permissions-Policy":
    "camera=(), microphone=(), geolocation=(), usb=(), serial=(), hid=(), bluetooth=(), payment=(), display-capture=()",
  "Cross-Origin-Opener-Policy": "same-origin",
  "Cross-Origin-Resource-Policy": "same-origin",
};

const DISCARD_MILLISECONDS = 30_000;

/** The words of a refusal: JSON for programs, plain text for whoever opened an address. */
export function refuse(request: IncomingMessage, response: ServerResponse, status: number, words: string) {
  const json = request.url?.startsWith("/api/v1/");
  // The rest of the body goes by unread: most senders look at the answer only when they have sent all.
  request.resume();
  const late = setTimeout(() => request.destroy(), DISCARD_MILLISECONDS);
  request.on("close", () => clearTimeout(late));
  response.writeHead(status, {
    "Content-Type": `${json ? "application/json" : "text/plain"}; charset=utf-8`,
  });
  response.end(json ? JSON.stringify({ ok: false, problems: [{ message: words }] }) : `${words}\n`);
}

/**
 * Stands before every page, route, upload and server action: says what the browser may do with the answer, and lets the
 * request in or answers it with the reason. True when it came in.
 */
export function admit(
  request: IncomingMessage,
  response: ServerResponse,
  { ownOrigin, dev }: { ownOrigin: string; dev: boolean },
): boolean {
  for (const [name, value] of Object.entries(HEADERS)) response.setHeader(name, value);
  const knock = knockOf(request);
  const policy = policyFor(knock.path, dev);
  response.setHeader("Content-Security-Policy", policy);
  // Next reads the nonce for its own scripts from here.
  request.headers["content-security-policy"] = policy;
  const verdict = judge(knock, ownOrigin);
  if (!verdict.admitted) {
    refuse(request, response, verdict.status, verdict.words);
    return false;
  }
  // Next may have answered by now, an action that it does not know for one.
  const refuseNested = () => !response.headersSent && refuse(request, response, 413, TOO_NESTED);
  if (knock.action) watchNesting(request, refuseNested);
  // The door has compared origin and host; behind a proxy they differ, and Next would compare them once more.
  delete request.headers["x-forwarded-host"];
  if (knock.origin) request.headers["x-forwarded-host"] = new URL(knock.origin).host;
  return true;
}
