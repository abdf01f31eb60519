import { Agent, request as httpRequest } from "node:http";

export interface Fetched {
  status: number;
  body: Buffer;
  /** All that the head promised has come. */
  whole: boolean;
}

/** Connections are kept open, as an installer's are, and few for one machine. */
const agent = new Agent({ keepAlive: true, maxSockets: 64 });

/** One request. Only the first `kept` bytes of a body are kept; after `cutAfter` bytes the line is cut, as on a bad cable. */
export function fetchOnce(
  url: string,
  more: { method?: string; body?: string; cutAfter?: number; kept?: number } = {},
): Promise<Fetched> {
  const { method = "GET", body, cutAfter = Infinity, kept = 2 ** 20 } = more;
  return new Promise((resolve, reject) => {
    const headers =
      body === undefined
        ? {}
        : { "Content-Type": "application/x-www-form-urlencoded", "Content-Length": Buffer.byteLength(body) };
    const request = httpRequest(url, { method, headers, agent }, (response) => {
      const parts: Buffer[] = [];
      let length = 0;
      response.on("data", (part: Buffer) => {
        if (length < kept) parts.push(part.subarray(0, kept - length));
        length += part.length;
        if (length > cutAfter) response.destroy();
      });
      const end = () =>
        resolve({ status: response.statusCode ?? 0, body: Buffer.concat(parts), whole: response.complete });
      response.on("close", end);
    });
    request.on("error", reject);
    request.end(body);
  });
}
