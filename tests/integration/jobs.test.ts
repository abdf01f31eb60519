import { hostname } from "node:os";
import { afterEach, describe, expect, it, vi } from "vitest";
import { jobRows } from "@/db";
import { listen, type News } from "@/server/feed";
import {
  endJobs,
  JobProblem,
  lookUp,
  startJob,
  stopJob,
  sweepJobs,
  watchJobs,
  type Keep,
  type Work,
} from "@/server/jobs";
import { emptyMachine } from "@/core/machine";
import { previewImport } from "@/server/imports";
import { endIntake, readInto } from "@/server/intake";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

// Long work: what its rows say is so, whatever happens to those who are at it.

ownDatabase();
const by = "M. Arkle";
const nothing: Keep = () => Promise.resolve();
const ask = (about: string, part: object = {}) => ({ kind: "checksum" as const, about, size: 100, ...part });

/** Work that goes on until the test lets it end, or it is told to stop. */
function held() {
  let end: (keep: Keep) => void = () => undefined;
  let fail: (error: Error) => void = () => undefined;
  const begun = vi.fn();
  const aborted = vi.fn();
  const work: Work = ({ signal, progress }) => {
    begun();
    progress(40);
    return new Promise((resolve, reject) => {
      [end, fail] = [resolve, reject];
      signal.addEventListener("abort", () => {
        aborted();
        reject(new Error("aborted"));
      });
    });
  };
  return { work, begun, aborted, end: (keep = nothing) => end(keep), fail: (error: Error) => fail(error) };
}
const start = async (about: string, work: Work, part: object = {}) =>
  (await startJob(by, ask(about, part), work))!;
const begins = (work: ReturnType<typeof held>) =>
  vi.waitFor(() => expect(work.begun).toHaveBeenCalled(), 15_000);

/** A row of another process, as it left it. */
async function leftBehind(id: string, server: string, pulseAt: string): Promise<void> {
  const { write } = await desk();
  await write((tx) => jobRows.add(tx, { id, ...ask(`${id}.iso`), input: {}, server }, { at: pulseAt, by }));
}

afterEach(async () => {
  for (const { job } of await jobRows.on((await desk()).db)) await stopJob(by, job.id);
});

describe("a job", () => {
  it("is written down before it begins, tells how far it is, and is done with what it keeps", async () => {
    const news: News[] = [];
    const end = await listen((one) => news.push(one));
    const own = held();
    const kept = vi.fn<Keep>(nothing);
    const { id, over } = await start("a.iso", own.work);
    await begins(own);
    await vi.waitFor(async () => expect((await lookUp(id))?.done).toBe(40), 15_000);
    expect(await lookUp(id)).toMatchObject({
      state: "working",
      about: "a.iso",
      by,
      size: 100,
      problem: null,
    });
    own.end(kept);
    expect(await over).toMatchObject({ state: "done", done: 100 });
    expect(kept).toHaveBeenCalledTimes(1);
    const told = () =>
      news.flatMap((one) =>
        one.event === "changes" ? one.changes.filter((c) => c.id === id).map((c) => c.version) : [],
      );
    await vi.waitFor(() => expect(told()).toEqual([1, 2, 3]), 15_000);
    expect(
      news.some((one) => one.event === "jobs" && one.jobs.some((job) => job.id === id && job.done === 40)),
    ).toBe(true);
    end();
  });

  it("waits while another of its kind is worked at, and those that wait begin in order", async () => {
    const works = [held(), held(), held()];
    const begun = await Promise.all(works.map(({ work }, i) => start(`wait-${i}.iso`, work)));
    await begins(works[0]!);
    await stopJob(by, begun[1]!.id);
    expect((await lookUp(begun[1]!.id))?.state).toBe("stopped");
    expect((await lookUp(begun[2]!.id))?.state).toBe("waiting");
    works[0]!.end();
    await begins(works[2]!);
    works[2]!.end();
    expect((await begun[2]!.over)?.state).toBe("done");
    expect(works[1]!.begun).not.toHaveBeenCalled();
    expect((await begun[1]!.over)?.state).toBe("stopped");
  });

  it("that is asked for twice at the same time is begun once", async () => {
    const own = held();
    const both = await Promise.all(
      [1, 2].map(() => startJob(by, ask("twice.iso", { once: true }), own.work)),
    );
    expect(both.filter((b) => b !== null)).toHaveLength(1);
  });

  it("that is stopped hears of it, and keeps nothing", async () => {
    const own = held();
    const { id, over } = await start("stop.iso", own.work);
    await begins(own);
    await stopJob("J. Pell", id);
    expect(own.aborted).toHaveBeenCalled();
    expect((await over)?.state).toBe("stopped");
    await stopJob("J. Pell", id);
    expect((await lookUp(id))?.state).toBe("stopped");
  });

  it("that fails says why; where nobody foresaw it, the log does", async () => {
    const log = vi.spyOn(console, "error").mockImplementation(() => undefined);
    const first = await start("f1.iso", () => Promise.reject(new JobProblem("The file changed meanwhile.")));
    expect(await first.over).toMatchObject({ state: "failed", problem: "The file changed meanwhile." });
    expect(log).not.toHaveBeenCalled();
    const second = await start("f2.iso", () => Promise.reject(new TypeError("x is undefined")));
    expect(await second.over).toMatchObject({
      state: "failed",
      problem: expect.stringContaining("Derrick failed with an unexpected error"),
    });
    expect(log).toHaveBeenCalledWith(expect.objectContaining({ message: "x is undefined" }));
    log.mockRestore();
  });

  it("is not done when what it keeps cannot be kept", async () => {
    const log = vi.spyOn(console, "error").mockImplementation(() => undefined);
    const { over } = await start("k.iso", async () => () => Promise.reject(new Error("full")));
    expect((await over)?.state).toBe("failed");
    log.mockRestore();
  });

  it("that somebody else has ended keeps nothing, and its work ends at the next pulse", async () => {
    const own = held();
    const { id, over } = await start("lost.iso", own.work);
    await begins(own);
    const { write, now } = await desk();
    await write((tx) => jobRows.end(tx, id, { state: "interrupted", at: now() }, by));
    expect((await over)?.state).toBe("interrupted");
    expect(own.aborted).toHaveBeenCalled();
  });
});

describe("what an earlier process was at", () => {
  const LONG_AGO = "2026-01-02T03:04:05.000Z";
  const soon = () => new Date().toISOString();
  // No process has this number: the kernel gives none above 2^22.
  const NOBODY = 2 ** 22 + 7;

  it.each([
    [
      "is interrupted at once where no such process is there",
      () => [`${hostname()}/${NOBODY}/1`, soon()],
      "interrupted",
    ],
    [
      "and where its number is this process's own by now",
      () => [`${hostname()}/${process.pid}/1`, soon()],
      "interrupted",
    ],
    ["of another machine goes on while it says so", () => ["other-host/12/1", soon()], "waiting"],
    ["of another machine is interrupted by its silence", () => ["other-host/12/1", LONG_AGO], "interrupted"],
    [
      "and so is one of this machine whose number some other program has now",
      () => [`${hostname()}/1/1`, LONG_AGO],
      "interrupted",
    ],
  ] as const)("%s", async (name, given, state) => {
    const [server, pulseAt] = given() as [string, string];
    const id = `j-left-${name.length}`;
    await leftBehind(id, server, pulseAt);
    await sweepJobs();
    // When it was last heard of stays known.
    expect(await lookUp(id)).toMatchObject({ state, pulseAt });
  });

  it("what this process is at is left alone, is interrupted when it ends, and is forgotten after months", async () => {
    await leftBehind("j-old", "other-host/12/1", LONG_AGO);
    await sweepJobs();
    const own = held();
    const { id, over } = await start("end.iso", own.work);
    await begins(own);
    await watchJobs();
    expect([await lookUp("j-old"), (await lookUp(id))?.state]).toEqual([null, "working"]);
    await endJobs();
    expect((await over)?.state).toBe("interrupted");
    expect(own.aborted).toHaveBeenCalled();
  });

  it("a row that a hand has spoilt is passed over", async () => {
    const { write, db } = await desk();
    await leftBehind("j-spoilt", "other-host/12/1", soon());
    await write((tx) => tx.run("update jobs set kind = 'dance' where id = 'j-spoilt'"));
    expect([await lookUp("j-spoilt"), await jobRows.on(db)]).toEqual([null, []]);
  });
});

describe("large outputs are read as a job", () => {
  const drives = (count: number): string =>
    JSON.stringify({
      blockdevices: Array.from({ length: count }, (_, i) => ({
        name: `sd${i}`,
        type: "disk",
        size: 4e12,
        serial: `S-${i}`,
      })),
    });
  const read = (text: string) =>
    readInto({ actor: by }, emptyMachine(), [{ name: "lsblk.json", text }], "2026-11-27T08:00:00.000Z");
  const readings = async () =>
    [...(await jobRows.newest((await desk()).db, "reading")).values()].map((r) => r.job);

  it("which ends as done, under the name of what was dropped", async () => {
    expect(await read(drives(20))).toMatchObject({ ok: true });
    expect(await readings()).toEqual([]);
    expect(await read(drives(20_000))).toMatchObject({ ok: true });
    expect(await readings()).toMatchObject([
      { about: "lsblk.json", state: "done", by, done: drives(20_000).length },
    ]);
  });

  it("for a person to look at, the first thousand changes are shown, with how many there are", async () => {
    const preview = await previewImport(await desk(by), null, [{ name: "l.json", text: drives(5000) }]);
    if (!preview.ok) throw new Error(JSON.stringify(preview.problems));
    expect([preview.value.changes.length, preview.value.changeCount]).toEqual([1000, 15_000]);
    expect(preview.value.understood).toMatchObject([{ tool: "lsblk", from: "l.json" }]);
  });

  it("and can be stopped: nothing was changed, and the next one is read", async () => {
    const reading = read(drives(20_000));
    const job = await vi.waitFor(async () => {
      const [one] = (await jobRows.on((await desk()).db)).map((r) => r.job);
      if (one?.kind !== "reading") throw new Error("no");
      return one;
    }, 60_000);
    await stopJob(by, job.id);
    expect(await reading).toMatchObject({
      ok: false,
      problems: [{ message: expect.stringMatching(/was stopped/) }],
    });
    expect(await read(drives(2))).toMatchObject({ ok: true });
    await endIntake();
  });
});
