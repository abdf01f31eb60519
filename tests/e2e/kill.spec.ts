import { expect, test } from "@playwright/test";
import { killStorm } from "../support/kill-storm";
import { OwnServer } from "../support/own-server";

test("the run log survives ten kill -9 of the server at any moment", async () => {
  test.setTimeout(240_000);
  const storm = await killStorm(new OwnServer("kill", 4383), 10);
  expect(storm).toMatchObject({ kills: 10, lost: [], doubled: [], counted: true });
  expect(storm.acknowledged).toBeGreaterThan(20);
  expect(storm.unanswered).toBeGreaterThan(0);
});
