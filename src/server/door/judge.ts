/** What stands in the head of a request, as far as the door looks at it. */
export interface Knock {
  method: string;
  /** Without the query. */
  path: string;
  host?: string;
  origin?: string;
  /** The browser's own account of where a request comes from (Sec-Fetch-Site, -Mode, -Dest); other programs send none. */
  site?: string;
  mode?: string;
  dest?: string;
  contentType?: string;
  /** A server action: the header that no foreign page can send without asking first. */
  action: boolean;
  /** Declared length in bytes; absent when the body comes in pieces. */
  length?: number;
}

export type Verdict = { admitted: true } | { admitted: false; status: number; words: string };

/** Doors that take files: their types, and the most bytes that one may have. */
const FILE_DOORS: { path: RegExp; types: RegExp; says: string; most: number }[] = [
  {
    path: /^\/api\/v1\/machines\/[^/]+\/pictures$/,
    types: /^image\/(jpeg|png|webp)$/,
    says: "image/jpeg, image/png or image/webp",
    most: 6_000_000,
  },
  {
    path: /^\/api\/v1\/export$/,
    types: /^application\/(json|gzip|x-gzip|octet-stream)$/,
    says: "application/gzip or application/json",
    most: Number.MAX_SAFE_INTEGER,
  },
];

/** Machines post here, from anywhere and without a browser: what admits them is their one-time code alone. */
const MACHINE_DOOR = /^\/api\/collect\/[^/]+$/;

const MOST_BYTES = 24_000_000;
const LOOPBACK = /^(127(\.\d{1,3}){3}|localhost|\[::1\])(:\d{1,5})?$/;
const READING = new Set(["GET", "HEAD"]);

const refuse = (status: number, words: string): Verdict => ({ admitted: false, status, words });

/**
 * Whether a request comes in. Loopback names (with any port: it may be forwarded) and the host of `ownOrigin` are this
 * Derrick; any other name is one that somebody made point here. What a browser sends on behalf of another page is
 * refused, but for following a link to a page. `ownOrigin` is DERRICK_ORIGIN.
 */
export function judge(knock: Knock, ownOrigin: string): Verdict {
  const tooLarge = judgeLength(knock);
  if (tooLarge) return tooLarge;
  if (MACHINE_DOOR.test(knock.path) && knock.method === "POST")
    return knock.origin === undefined && knock.site === undefined
      ? { admitted: true }
      : refuse(403, "Only collectors with a one-time code may post here, not web pages.");
  const { host = "" } = knock;
  const own = new URL(ownOrigin);
  if (!LOOPBACK.test(host) && host !== own.host)
    return refuse(
      421,
      `The request used the host name "${host}", which is not that of Derrick, so nothing was read or changed. If Derrick is to be reached under this name, set DERRICK_ORIGIN to that address and start it again.`,
    );
  if (knock.origin !== undefined && knock.origin !== `http://${host}` && knock.origin !== own.origin)
    return foreign(knock.origin);
  if (fromElsewhere(knock)) return foreign("another page");
  return READING.has(knock.method) ? { admitted: true } : judgeChange(knock);
}

const foreign = (from: string): Verdict =>
  refuse(
    403,
    `This request came from ${from}, not from a page of Derrick, so nothing was read or changed. If Derrick is behind a proxy, set DERRICK_ORIGIN to its public address.`,
  );

/** A link may lead here from anywhere; a picture, script, frame or form of another page may not. */
function fromElsewhere({ site, mode, dest, method }: Knock): boolean {
  if (site === undefined || site === "same-origin" || site === "none") return false;
  return !(method === "GET" && mode === "navigate" && dest === "document");
}

function judgeLength({ path, length = 0 }: Knock): Verdict | null {
  const most = FILE_DOORS.find((d) => d.path.test(path))?.most ?? MOST_BYTES;
  return length > most
    ? refuse(
        413,
        `The request has ${Math.ceil(length / 1e6)} MB; the limit is ${Math.round(most / 1e6)} MB. Nothing was read or changed.`,
      )
    : null;
}

/** Forms of other pages can send plain text and form fields, so nothing that changes anything takes those. */
function judgeChange({ method, path, action, contentType = "" }: Knock): Verdict {
  if (action)
    return /^multipart\//i.test(contentType)
      ? refuse(415, "The pages of Derrick send no multipart forms, so nothing was read or changed.")
      : { admitted: true };
  if (method !== "POST" || !path.startsWith("/api/"))
    return refuse(405, `${method} is not supported here, so nothing was changed.`);
  const type = contentType.split(";")[0]!.trim().toLowerCase();
  const files = FILE_DOORS.find((d) => d.path.test(path));
  const fits = files ? files.types.test(type) : type === "application/json";
  return fits
    ? { admitted: true }
    : refuse(
        415,
        `The content type is "${type}"; accepted: ${files?.says ?? "application/json"}. Nothing was read or changed.`,
      );
}
