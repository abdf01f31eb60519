import { expect, it } from "vitest";
import { armBatch, batchOffers } from "@/server/netboot/batch";
import { addSeconds } from "@/core/units";
import { bootRows } from "@/db";
import { bootBoard, othersGiven } from "@/server/netboot/board";
import { disarm } from "@/server/netboot/arm";
import { ownBootService } from "../support/boot-service";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";
import { fleetOf } from "../support/fleet";

// Several machines are armed on one page, each by the end of its own serial.

ownDatabase();
const fleet = fleetOf(4);
ownBootService(() => fleet.text);
const [one, two, three, four] = fleet.members.map((m) => ({ ...m, typed: m.serial.slice(-6) }));

it("lists what waits to be armed with what it loses, and no end of a serial", async () => {
  const offers = await batchOffers(await desk());
  expect(offers.map((o) => [o.build, o.machine, o.problems])).toEqual(
    fleet.members.map((m) => [m.build, m.name, []]),
  );
  expect(offers[0]!.offer?.arming.erases).toHaveLength(2);
});

it("arms each for itself: a wrong end, another's end or a sheet that is none leaves the others alone", async () => {
  const asked = [one!, { ...two!, typed: three!.typed }, three!, { ...four!, build: "b-none" }, one!];
  const results = await armBatch(await desk(), asked, { minutes: 60, asksCode: false });
  expect(results.map((r) => [r.build, r.armed])).toEqual([
    ...[
      [one!.build, true],
      [two!.build, false],
    ],
    ...[
      [three!.build, true],
      ["b-none", false],
      [one!.build, false],
    ],
  ]);
  expect(results.map((r) => r.words)).toEqual([
    ...["armed", expect.stringMatching(/The serial number of wrk-tm01 does not end with these characters/)],
    ...[
      "armed",
      expect.stringMatching(/This build no longer exists/),
      expect.stringMatching(/wrk-tm00 is already armed \(waiting\)/),
    ],
  ]);
  expect((await bootBoard(await desk())).rows.map((r) => r.buildId).sort()).toEqual([
    one!.build,
    three!.build,
  ]);
  expect((await batchOffers(await desk())).map((o) => o.build)).toEqual([two!.build, four!.build]);
});

it("an armed machine stays on the board, and in the queue, however many were armed after it and are over", async () => {
  const at = await desk();
  const before = await bootBoard(at);
  const { id, ...row } = (await bootRows.ofBuild(at.db, three!.build))!;
  await at.write(async (tx) => {
    for (let n = 0; n < 210; n += 1) {
      const until = addSeconds(at.now(), -(24 * 3600 + 60));
      await bootRows.insert(tx, { ...row, id: `a-over-${n}`, arming: { ...row.arming, until } }, at.stamp());
    }
  });
  const { rows, older } = await bootBoard(at);
  expect([before.older, rows.length, older]).toEqual([0, 202, 10]);
  expect(rows.slice(0, 2).map((r) => r.id)).toEqual(before.rows.map((r) => r.id));
  expect(rows.find((r) => r.id === id)?.state.status).toBe("waiting");
  expect(await othersGiven(at.db, "", at.now())).toEqual([]);
  await at.write((tx) => bootRows.setToken(tx, id, "hash"));
  expect((await othersGiven(at.db, "", at.now())).map((r) => r.id)).toEqual([id]);
  expect(await othersGiven(at.db, id, at.now())).toEqual([]);
});

it("offers one anew that was called off", async () => {
  const row = (await bootBoard(await desk())).rows.find((r) => r.buildId === one!.build)!;
  await disarm(await desk(), row.id);
  expect((await batchOffers(await desk())).map((o) => o.build)).toContain(one!.build);
});
