import { expect, it } from "vitest";
import { aBuild } from "../../../tests/support/builds";
import { usualAccounts } from ".";

const profile = aBuild().profile!;
const wanting = (needsAdministrator: boolean, reserved: string[] = []) => ({
  ...profile,
  accounts: { superUser: "root", needsAdministrator, adminGroup: "wheel", reserved },
});

it("begins with the super-user alone, or with an administrator where the family wants one", () => {
  expect(usualAccounts(wanting(false), "J. Pell")).toEqual([
    { name: "root", role: "super-user", logIn: "password", keys: [] },
  ]);
  expect(usualAccounts(wanting(true), "J. Pell")).toEqual([
    { name: "jpell", role: "administrator", logIn: "password", keys: [] },
  ]);
});

it.each([
  ["Zoë Wren-Hale", "zoewren-hale"],
  ["42 Ann", "ann"],
  ["操作員", "sysadmin"],
  ["operator", "sysadmin"],
  ["x".repeat(60), "x".repeat(32)],
])("makes of %s an account name that fits and is not kept by the family", (person, name) => {
  expect(usualAccounts(wanting(true, ["operator"]), person)[0]?.name).toBe(name);
});
