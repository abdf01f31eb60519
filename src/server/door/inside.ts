import type { IncomingMessage } from "node:http";
import { NestingCount, type Nesting } from "@/core/text";

/**
 * The most that the JSON of a body may be nested: no shape of Derrick's own is deeper than twelve, and what parsing costs
 * goes with its parts, not with the bytes of its texts.
 */
export const MOST_NESTING: Nesting = { depth: 40, parts: 400_000 };

export const TOO_NESTED = "This JSON is nested deeper or has more parts than Derrick accepts.";

/**
 * Looks at the JSON of a body while it goes by on its way to Next, which parses server actions before Derrick's own code
 * sees them. At the first piece that is too much `refuse` is called, and nothing but the end of the body goes on. Overrides `push`, by which
 * Node's parser hands over the pieces: a listener would start the flow before Next listens.
 */
export function watchNesting(request: IncomingMessage, refuse: () => unknown): void {
  const count = new NestingCount(MOST_NESTING);
  const push = request.push.bind(request);
  request.push = (chunk: Uint8Array | null, encoding) => {
    if (!chunk) return push(null);
    if (count.exceeded) return true;
    if (!count.add(chunk).exceeded) return push(chunk, encoding);
    refuse();
    return true;
  };
}
