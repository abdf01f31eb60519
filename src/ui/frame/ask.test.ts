import { afterEach, expect, it, vi } from "vitest";
import { asked, sending } from "./ask";

afterEach(() => vi.unstubAllGlobals());
const answering = (response: Response | null) =>
  vi.stubGlobal("fetch", async () => response ?? Promise.reject(new TypeError("fetch failed")));

it("gives what the server answers, whatever its status", async () => {
  answering(Response.json({ ok: true, value: 3 }));
  expect(await asked("/x", "nothing was read")).toEqual({ ok: true, value: 3 });
  answering(Response.json({ ok: false, problems: [{ message: "too large" }] }, { status: 413 }));
  expect(await asked("/x", "nothing was read", sending([]))).toMatchObject({
    problems: [{ message: "too large" }],
  });
});

it.each([
  [
    "a page",
    new Response("<html>Bad gateway</html>", { status: 502 }),
    /status 502 and no words .*; nothing was read\./,
  ],
  ["half an answer", new Response('{"ok":tr'), /status 200 and no words/],
  ["a text", new Response('"ok"'), /status 200 and no words/],
  ["nothing", null, /^The server does not answer; nothing was read\.$/],
])("says so when it is %s", async (_, response, words) => {
  answering(response);
  expect(await asked("/x", "nothing was read")).toEqual({
    ok: false,
    problems: [{ message: expect.stringMatching(words) }],
  });
});
