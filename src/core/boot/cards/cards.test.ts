import { describe, expect, it } from "vitest";
import fc from "fast-check";
import { aBuild, NOW, type BuildChanges } from "../../../../tests/support/builds";
import { syncing, withCards } from "../../../../tests/support/boot-cards";
import { addSeconds } from "../../units";
import { cardSteps } from "../steps/cards";
import { syncEnd } from ".";

const after = (minutes: number) => addSeconds(NOW, minutes * 60);
const read = (...percents: [minutes: number, percent: number][]) =>
  percents.map(([minutes, percent]) => ({ at: after(minutes), percent }));

describe("the end of a sync", () => {
  it("follows from two readings, and is at the latest what whole percent allow", () => {
    // 18 % in 12 minutes: 44 % more take 29 min 20 s; at 17 % in 12 minutes 31 min 4 s.
    expect(syncEnd(read([0, 38], [12, 56]))).toEqual({
      endsAt: addSeconds(NOW, 720 + 1760),
      lateAt: addSeconds(NOW, 720 + 1864),
      percentPerMinute: 1.5,
    });
  });

  it.each<[string, [number, number][]]>([
    ["one reading", [[0, 38]]],
    ["none", []],
    [
      "two at one moment",
      [
        [0, 38],
        [0, 40],
      ],
    ],
    [
      "a percentage that does not move",
      [
        [0, 38],
        [12, 38],
      ],
    ],
  ])("is not known from %s", (_, readings) => expect(syncEnd(read(...readings))).toBeNull());

  it("is not bounded while one percent may be none, and counts from where it fell back", () => {
    expect(syncEnd(read([0, 38], [2, 39]))?.lateAt).toBeNull();
    expect(syncEnd(read([0, 80], [10, 5], [20, 25]))?.endsAt).toBe(addSeconds(NOW, 1200 + 2250));
  });

  it("lies between the readings and the true end of any even sync, whatever is cut off", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 600, max: 9000 }),
        fc.nat(40),
        fc.integer({ min: 5, max: 50 }),
        (total, from, more) => {
          const shown = (percent: number) => ({
            at: addSeconds(NOW, Math.round((percent / 100) * total)),
            percent: Math.floor((Math.round((percent / 100) * total) / total) * 100),
          });
          const end = syncEnd([shown(from), shown(from + more + 2)])!;
          // Times are whole seconds, so the bound holds to the rounding of both readings.
          expect(Date.parse(end.lateAt!) + 3000).toBeGreaterThanOrEqual(
            Date.parse(NOW) + (total - total / 100) * 1000,
          );
        },
      ),
    );
  });
});

const moduleOf = (changes: BuildChanges) => aBuild(changes).boot!.cards;
const later = (changes: BuildChanges, minutes: number, readings: [number, number][] = []): BuildChanges => ({
  ...changes,
  now: after(minutes),
  sheet: { "boot.cards.readings": read(...readings) },
});

describe("the module for boot cards", () => {
  it("is none without one, and tells its cards by slot", () => {
    expect(moduleOf({})).toBeNull();
    const primary = { ...withCards(2), sheet: { "boot.cards.primary": "card 2" } };
    expect(moduleOf(primary)).toMatchObject({
      ...{ isTarget: true, sync: null, mirror: { isWhole: true } },
      cards: [
        { slot: "card 1", isPrimary: false },
        { slot: "card 2", isPrimary: true },
      ],
    });
  });

  it.each<[string, BuildChanges, string, string | null]>([
    ["by the time that the module tells", later(syncing(38, 1560), 10), "under way", after(26)],
    ["by nothing from a percentage alone", later(syncing(38), 10), "end not known", null],
    ["by a second reading", later(syncing(38), 12, [[12, 56]]), "under way", addSeconds(NOW, 2480)],
    ["and stands still after its time", later(syncing(38, 1560), 60), "overdue", after(26)],
  ])("knows the end of a sync %s", (_, changes, stands, endsAt) => {
    expect(moduleOf(changes)?.sync).toMatchObject({ stands, endsAt });
  });

  it("is whole once its page showed a hundred", () => {
    const whole = moduleOf(later(syncing(38, 1560), 90, [[80, 100]]));
    expect(whole).toMatchObject({ sync: null, mirror: { isWhole: true } });
  });

  it("is not whole by a page that was read before a tool told of a fault", () => {
    const before = { at: addSeconds(NOW, -600), percent: 100 };
    const degraded = withCards(2, { state: "degraded", health: "degraded" });
    const changes = { ...degraded, sheet: { "boot.cards.readings": [before] } };
    expect(moduleOf(changes)).toMatchObject({ mirror: { isWhole: false } });
  });
});

describe("the steps at the cards", () => {
  const ids = (changes: BuildChanges) => cardSteps(aBuild(changes)).map((s) => s.id);
  it("wait for a mirror that is not whole, as long as it has left, and say until when its state is expected", () => {
    expect(ids(withCards(2))).toEqual([]);
    const [wait] = cardSteps(aBuild(syncing(38, 1560)));
    expect(wait).toMatchObject({ id: "cards-whole", duration: { likelySeconds: 1560, lateSeconds: 1860 } });
    expect(wait?.normal[0]?.means).toMatch(/^Expected until the mirror is complete/);
  });
  it("make a mirror where one was named and there is none, and never without a name", () => {
    expect(ids(withCards(1))).toEqual([]);
    expect(ids({ ...withCards(1), sheet: { "boot.cards.name": "CARDS" } })).toEqual([
      "cards-mirror",
      "cards-whole",
    ]);
  });
});
