import { expect, it } from "vitest";
import { armingState, type BootEvent } from "@/core/netboot";
import { armMachine } from "@/server/netboot/arm";
import { standingIn, standingsOf } from "@/server/netboot/standing";
import { bootRows } from "@/db";
import { makeReady } from "../support/armed";
import { ARMED } from "../support/boot-image";
import { ownDatabase } from "../support/database";
import { ownBootService } from "../support/boot-service";
import { desk } from "../support/desk";
import { seeded } from "../support/random";

ownDatabase();
ownBootService();

const random = seeded(36);
const WHAT = ["kernel", "initrd 1", "answers tho-a.ks", "tree .treeinfo", "script"];
const some = (): BootEvent => {
  const what = WHAT[Math.floor(random() * WHAT.length)]!;
  return { kind: "fetched", what, bytes: 10, whole: random() < 0.2, of: random() < 0.5 ? 100 : 0 };
};

it("how far a machine is, heard on from where it was kept, is what its whole log comes to, whatever was taken back", async () => {
  await makeReady();
  const armed = await armMachine(await desk(), ARMED.build, {
    typed: ARMED.serial,
    minutes: 60,
    asksCode: false,
  });
  if (!armed.ok) throw new Error(armed.problems.map((p) => p.message).join(" "));
  const own = await desk();
  const row = (await bootRows.one(own.db, armed.value.id))!;
  const tell = (isTakenBack: boolean) =>
    own
      .write(async (tx) => {
        const told = Array.from({ length: 1 + Math.floor(random() * 3) }, () => ({
          ...{ armingId: row.id, mac: "", event: some(), stamp: own.stamp() },
        }));
        await bootRows.add(tx, told);
        const inside = await standingIn(tx, row, own.now());
        expect(inside).toEqual(armingState(row.arming, await bootRows.log(tx, row.id), own.now()));
        if (isTakenBack) throw new Error("taken back");
      })
      .catch((error: Error) => expect(error.message).toBe("taken back"));
  for (let i = 0; i < 60; i += 1) {
    await tell(random() < 0.4);
    if (random() < 0.5) continue;
    const found = (await standingsOf(own.db, [row])).get(row.id)!.at(own.now());
    expect(found).toEqual(armingState(row.arming, await bootRows.log(own.db, row.id), own.now()));
  }
  expect((await bootRows.log(own.db, row.id)).length).toBeGreaterThan(40);
});
