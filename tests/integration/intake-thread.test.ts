import { afterAll, expect, it } from "vitest";
import { emptyMachine } from "@/core/machine";
import { endIntake, readInto } from "@/server/intake";
import { ownDatabase } from "../support/database";

// Texts are read beside the server, and what holds the reading up holds nothing else up.

const AT = "2026-11-27T08:00:00.000Z";
const MEGABYTE = 1_000_000;
const read = (text: string, seconds?: number) =>
  readInto({ actor: "J. Pell" }, emptyMachine(), [{ name: "t.txt", text }], AT, seconds);
ownDatabase();
afterAll(endIntake);

const drives = (count: number): string =>
  JSON.stringify({
    blockdevices: Array.from({ length: count }, (_, i) => ({
      ...{ name: `sd${i}`, type: "disk", size: 4e12, serial: `SER-${i}`, fstype: null },
      ...{ model: `ALDER A-${i}`, wwn: `0x5000c5${String(i).padStart(10, "0")}`, rota: false, rm: false },
    })),
  });
const functions = (count: number): string =>
  Array.from(
    { length: count },
    (_, i) =>
      `${(i >> 8).toString(16).padStart(2, "0")}:${((i >> 3) % 32).toString(16).padStart(2, "0")}.${i % 8} "Ethernet controller [0200]" "Silica [1af0]" "X [0001]" -r01\n`,
  ).join("");

it("five thousand drives and ten thousand functions are read, and the server does other things meanwhile", async () => {
  let beats = 0;
  const beat = setInterval(() => (beats += 1), 1);
  const texts = [drives(5000), functions(10_000)].map((text, i) => ({ name: `t${i}`, text }));
  const got = await readInto({ actor: "J. Pell" }, emptyMachine(), texts, AT);
  clearInterval(beat);
  if (!got.ok) throw new Error(JSON.stringify(got.problems));
  const { facts } = got.value.document;
  expect([facts.drives.length, facts.pci.length]).toEqual([5000, 10_000]);
  expect(beats).toBeGreaterThan(20);
});

it.each([
  ["brackets", `{"blockdevices":${"[".repeat(8 * MEGABYTE - 20)}`],
  [
    "one line of members",
    `Personalities : [raid1]\nmd0 : active ${"a".repeat(7 * MEGABYTE)}\nunused devices: <none>\n`,
  ],
  ["empty lines", `BootOrder: 0001\n${"\n".repeat(8 * MEGABYTE - 20)}`],
  ["boot entries", `BootOrder: 0001\n${"Boot0001* x\tHD(1)\n".repeat(400_000)}`],
  ["handles", `# dmidecode 3.4\n${"Handle 0x0001, DMI type 17, 4 bytes\n\tSize: 1 GB\n".repeat(150_000)}`],
])("eight megabytes of %s are refused in words", async (_, text) => {
  const got = await read(text);
  const words = got.ok ? got.value.intake.rejected.flatMap((r) => r.problems) : got.problems;
  expect(words.map((p) => p.message).join(" ")).toMatch(
    /the limit is|not imported|no tool writes|any machine has|nothing|no structures/,
  );
});

it("a reading that takes too long is stopped in words, and the next one is good", async () => {
  const slow = await read(drives(20_000), 0.01);
  expect(slow).toMatchObject({
    ok: false,
    problems: [
      { message: expect.stringMatching(/^Reading "t.txt" took more than 0.01 seconds .* was stopped/) },
    ],
  });
  expect(await read(drives(2))).toMatchObject({ ok: true });
});
