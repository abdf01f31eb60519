import { expect, it } from "vitest";
import { accountNameProblem, domainProblem, hostNameProblem, isTimeZone } from ".";

it.each([
  ["wrk-hv1", null],
  ["", "a host name is required"],
  ["10.61.10.7", "this is an address, not a name"],
  ["wrk.marrowby.example", "enter the domain in its own field"],
  ["wrk_hv1", "only letters, digits and hyphens are allowed"],
  ["-wrk", "it must not begin or end with a hyphen"],
  ["4711", "a name of digits only can be mistaken for an address"],
  ["a".repeat(64), "64 characters; the limit is 63"],
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
  ]).toEqual([null, false, "a name is required"]);
  expect(["Europe/London", "UTC", "Mars/Base", ""].map(isTimeZone)).toEqual([true, true, false, false]);
});
