import { expect, it } from "vitest";
import { A_KEY, B_KEY } from "../../../tests/support/keys";
import { keyMatrix, type KeyHolder } from ".";

const holder = (machine: string, accounts: KeyHolder["accounts"]): KeyHolder => ({
  ...{ build: `b-${machine}`, number: `B-${machine}`, machineId: `m-${machine}`, machine, siteId: "s" },
  accounts,
});
const account = (name: string, ...keys: [line: string, until: string][]): KeyHolder["accounts"][number] => ({
  ...{ name, role: "administrator", logIn: "key" },
  keys: keys.map(([line, until]) => ({ line, until })),
});

it("tells of each key which machines it opens, as whom and until when; those that open the most stand first", () => {
  const rows = keyMatrix([
    holder("one", [account("jpell", [B_KEY, "2026-12-31"]), account("ops", [A_KEY, ""])]),
    // The same key under another comment is the same key; one that does not read is on no machine.
    holder("two", [
      account("ops", [A_KEY.replace(/ [^ ]*$/, " elsewhere@x"), "2027-01-31"], ["nonsense", ""]),
    ]),
    holder("three", [{ ...account("backup", [B_KEY, ""]), role: "service" }]),
  ]);
  expect(rows.map(({ doors }) => doors.map((d) => `${d.machine} ${d.account} ${d.until}`))).toEqual([
    ["one ops ", "two ops 2027-01-31"],
    ["one jpell 2026-12-31"],
  ]);
  expect(rows[0]!.whose).toBe(A_KEY.split(" ").slice(2).join(" "));
});
