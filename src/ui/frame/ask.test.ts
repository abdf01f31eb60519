import { afterEach, expect, it, vi } from "vitest";
import { asked, sending } from "./ask";

afterEach(() => vi.unstubAllGlobals());
const answering = (response: Response | null) =>
  vi.stubGlobal("fetch", async () => response ?? Promise.reject(new TypeError("fetch failed")));

it("gives what the server answers, whatever its status", async () => {
  answering(Response.json({ ok: true, value: 3 }));
  expect(await asked("/x", "no output was imported")).toEqual({ ok: true, value: 3 });
  answering(Response.json({ ok: false, problems: [{ message: "too large" }] }, { status: 413 }));
  expect(await asked("/x", "no output was imported", sending([]))).toMatchObject({
    problems: [{ message: "too large" }],
  });
});

it.each([
  [
    "a page",
    new Response("<html>Bad gateway</html>", { status: 502 }),
    /The server answered with status 502/,
  ],
  ["half an answer", new Response('{"ok":tr'), /The server answered with status 200/],
  ["a text", new Response('"ok"'), /The server answered with status 200/],
  ["nothing", null, /^The server does not respond/],
])("says so when it is %s", async (_, response, words) => {
  answering(response);
  expect(await asked("/x", "no output was imported")).toEqual({
    ok: false,
    problems: [{ message: expect.stringMatching(words) }],
  });
});
