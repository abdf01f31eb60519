import { readFileSync } from "node:fs";

export const EMPTY = "http://127.0.0.1:4381";
export const DEMO = "http://127.0.0.1:4382";

/** Loads the demo data once; a second call is refused by the server and that is fine. */
export async function loadDemo(): Promise<void> {
  await fetch(`${DEMO}/api/v1/export?rebase=1`, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: readFileSync("demo/marrowby-water.json", "utf8"),
  });
}
