import { readFileSync } from "node:fs";
import type { OwnServer } from "./own-server";
import { seeded } from "./random";

export interface Storm {
  kills: number;
  acknowledged: number;
  /** Sent, and the server was killed before it answered. */
  unanswered: number;
  lost: string[];
  doubled: string[];
  /** Whether the numbers of the log count from 1 without a gap. */
  counted: boolean;
}

const RUN = "/api/v1/runs/r-wrk-hv1/events";

/** Loads the demo data into an empty server. */
export const loadDemoInto = (base: string): Promise<Response> =>
  fetch(`${base}/api/v1/export?rebase=1`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: readFileSync("demo/marrowby-water.json", "utf8"),
  });

/**
 * Kills a server with SIGKILL again and again while three people write to the log of one run, and looks what became of
 * what it had acknowledged. What was not answered is sent again under its key, as the browser does.
 */
export async function killStorm(server: OwnServer, kills: number, seed = 1): Promise<Storm> {
  const random = seeded(seed);
  await server.start();
  await loadDemoInto(server.base);
  const acknowledged: string[] = [];
  let unanswered: string[] = [];
  let everUnanswered = 0;
  let sent = 0;
  const post = (key: string) =>
    fetch(server.base + RUN, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify({ key, command: { kind: "note", step: null, text: `note ${key}` } }),
    }).catch(() => null);
  for (let kill = 0; kill < kills; kill += 1) {
    let alive = true;
    const talk = async () => {
      while (alive) {
        const key = `note-key-${(sent += 1)}`;
        const answer = await post(key);
        (answer?.ok ? acknowledged : unanswered).push(key);
        await new Promise((r) => setTimeout(r, 5));
      }
    };
    const talkers = [talk(), talk(), talk()];
    await new Promise((r) => setTimeout(r, 40 + random() * 400));
    await server.end("SIGKILL");
    alive = false;
    await Promise.all(talkers);
    await server.start();
    everUnanswered += unanswered.length;
    const again = unanswered;
    unanswered = [];
    for (const key of again) ((await post(key))?.ok ? acknowledged : unanswered).push(key);
  }
  const { value } = (await (await fetch(server.base + RUN)).json()) as {
    value: { log: { seq: number; key: string }[] };
  };
  await server.end();
  const times = new Map<string, number>();
  for (const { key } of value.log) times.set(key, (times.get(key) ?? 0) + 1);
  return {
    kills,
    acknowledged: acknowledged.length,
    unanswered: everUnanswered,
    lost: acknowledged.filter((key) => !times.has(key)),
    doubled: [...times].filter(([, n]) => n > 1).map(([key]) => key),
    counted: value.log.every((l, i) => l.seq === i + 1),
  };
}
