import { describe, expect, it } from "vitest";
import { aBuild, shippedProfile } from "../../../tests/support/builds";
import { UNDECIDED } from "../text";
import { deriveSteps, intakeOf } from ".";

const FAMILIES = [
  "cairn-hypervisor-9",
  "lowland-server-7",
  "millrace-12",
  "pallant-server-4",
  "sedge-bsd-14",
  "tussock-host-5",
];
const NOTHING = {
  ...{ "answers.hostName": "", "answers.domain": "", "answers.keyboard": "", "answers.locale": "" },
  ...{ "answers.timeZone": "", "answers.accounts": [], "answers.secretsKept": "" },
  ...{
    "network.address": "",
    "network.gateway": "",
    "network.nameServers": [],
    "network.port": null,
    "network.segment": null,
  },
};

describe.each(FAMILIES)("%s", (name) => {
  const profile = shippedProfile(name);
  const planOf = (sheet = {}) => aBuild({ profile, sheet });

  it("lists each answer that a step will have typed, and none is open on a sound sheet", () => {
    const { asked, open } = intakeOf(planOf())!;
    const typed = deriveSteps(planOf())
      .filter(({ id }) => /(^|-)(screen|first)-/.test(id))
      .flatMap(({ lines }) => lines);
    for (const { label, value } of asked.filter((a) => !a.isSecret && a.value !== null))
      expect(typed, label).toContainEqual({ label, value });
    expect(open.filter(({ value }) => value?.includes(UNDECIDED))).toEqual([]);
    expect(asked.length).toBeGreaterThan(2);
  });

  it("tells what nobody has decided exactly where the steps would leave it out", () => {
    const { open } = intakeOf(planOf(NOTHING))!;
    const left = deriveSteps(planOf(NOTHING)).flatMap((step) =>
      step.do.flatMap(
        (line) => /^Not decided in the plan: (.*)\. Clarify before/.exec(line)?.[1]?.split(", ") ?? [],
      ),
    );
    expect(
      open
        .filter((a) => !a.isSecret)
        .map(({ label }) => label)
        .sort(),
    ).toEqual(left.sort());
    expect(left.length).toBeGreaterThan(0);
  });
});

it("each open answer names the zone that decides it", () => {
  const { open } = intakeOf(aBuild({ profile: shippedProfile("lowland-server-7"), sheet: NOTHING }))!;
  expect(new Set(open.map(({ zone }) => zone))).toEqual(new Set(["E", "F"]));
});

it("without a machine or an image nobody knows what will be asked", () => {
  expect(intakeOf(aBuild({ machine: null }))).toBeNull();
  expect(intakeOf(aBuild({ image: null }))).toBeNull();
});
