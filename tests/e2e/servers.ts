import { readFileSync } from "node:fs";

export const EMPTY = "http://127.0.0.1:4381";
export const DEMO = "http://127.0.0.1:4382";

/** Loads the demo data into the server at `base`; into one that holds data it is refused, which is told by the answer. */
export const loadInto = (base: string): Promise<Response> =>
  fetch(`${base}/api/v1/export?rebase=1`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: readFileSync("demo/marrowby-water.json", "utf8"),
  });

/** Loads the demo data once; a second call is refused by the server and that is fine. */
export async function loadDemo(): Promise<void> {
  await loadInto(DEMO);
}
