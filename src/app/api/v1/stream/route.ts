import { health } from "@/server/health";
import { listen, missed, type News } from "@/server/feed";
import { route } from "../../answer";

export const dynamic = "force-dynamic";

const encoder = new TextEncoder();

/** One message of an event stream (HTML standard, server-sent events); its id is the last change that it tells. */
function message(news: News): Uint8Array {
  const { event, ...data } = news;
  const id = news.event === "changes" ? `id: ${news.changes.at(-1)?.seq ?? ""}\n` : "";
  return encoder.encode(`${id}event: ${event}\ndata: ${JSON.stringify(data)}\n\n`);
}

/**
 * What is written, as it is written, and every few seconds how the database is. A page that was away names the last
 * change that it has seen, and is told what it missed.
 */
export const GET = route((request: Request) => {
  const seen = Number(request.headers.get("last-event-id") ?? "");
  let stop: (() => void) | null = null;
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const send = (news: News): void => {
        try {
          controller.enqueue(message(news));
        } catch {
          stop?.();
        }
      };
      controller.enqueue(encoder.encode("retry: 2000\n\n"));
      const end = (): void => {
        stop?.();
        controller.close();
      };
      stop = await listen(send, end);
      const state = await health();
      send({ event: "health", trouble: state.ok ? null : (state.problems[0]?.message ?? "no answer") });
      request.signal.addEventListener("abort", () => stop?.());
      if (!Number.isInteger(seen) || seen <= 0) return;
      const changes = await missed(seen);
      if (changes === null) send({ event: "much" });
      else if (changes.length > 0) send({ event: "changes", changes });
    },
    cancel: () => stop?.(),
  });
  return new Response(stream, {
    headers: {
      "Content-Type": "text/event-stream",
      "Cache-Control": "no-store, no-transform",
      "X-Accel-Buffering": "no",
    },
  });
});
