// How long the application takes to say that it is there while 20,000 connections that ask nothing stand at its boot service, or
// come again, half of them over HTTPS.
import { setTimeout as wait } from "node:timers/promises";
import { OwnServer } from "../tests/support/own-server";
import { silentStorm } from "../tests/support/silent-storm";

const [PORT, BOOT, TLS, EACH, SECONDS] = [4407, 4408, 4409, 10_000, 15];

const server = new OwnServer("bench-attack", PORT, {
  DERRICK_BOOT_URL: `http://127.0.0.1:${BOOT}`,
  DERRICK_BOOT_TLS_URL: `https://127.0.0.1:${TLS}`,
});

async function measured(): Promise<string> {
  const waits: number[] = [];
  let silent = 0;
  const until = performance.now() + SECONDS * 1000;
  while (performance.now() < until) {
    const start = performance.now();
    const answer = await fetch(`${server.base}/api/health`, { signal: AbortSignal.timeout(10_000) }).catch(
      () => null,
    );
    if (answer?.ok) waits.push(performance.now() - start);
    else silent += 1;
    await wait(100);
  }
  const sorted = waits.toSorted((a, b) => a - b);
  const at = (share: number): string => (sorted[Math.floor((sorted.length - 1) * share)] ?? NaN).toFixed(1);
  return `median ${at(0.5)} ms, p95 ${at(0.95)} ms, longest ${at(1)} ms, ${silent} unanswered`;
}

await server.start();
console.log(`health, without other clients: ${await measured()}`);
const attack = await silentStorm([BOOT, TLS], EACH);
console.log(`health, ${2 * EACH} silent connections: ${await measured()}   target 200 ms`);
attack.end();
await server.end();
