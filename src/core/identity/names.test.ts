import { expect, it } from "vitest";
import { accountNameProblem, domainProblem, hostNameProblem, isTimeZone } from ".";

it.each([
  ["wrk-hv1", null],
  ["", "no host name"],
  ["10.61.10.7", "this is an address, not a name"],
  ["wrk.marrowby.example", "the domain has a field of its own"],
  ["wrk_hv1", "only letters, digits and hyphens are allowed"],
  ["-wrk", "it may not begin or end with a hyphen"],
  ["4711", "digits alone can be mistaken for an address"],
  ["a".repeat(64), "64 characters; a name has at most 63"],
])("host name %j: %s", (name, problem) => expect(hostNameProblem(name)).toBe(problem));

it("judges domains, accounts and time zones", () => {
  expect([domainProblem("marrowby.example"), domainProblem("marrowby..example")]).toEqual([
    null,
    'the part "" is not valid',
  ]);
  expect([
    accountNameProblem("jpell"),
    accountNameProblem("J Pell") === null,
    accountNameProblem(""),
  ]).toEqual([null, false, "no name"]);
  expect(["Europe/London", "UTC", "Mars/Base", ""].map(isTimeZone)).toEqual([true, true, false, false]);
});
