import { describe, expect, it } from "vitest";
import { aPlan } from "../../../tests/support/runs";
import { readDocument } from "../document";
import { buildBasis, numberWords, procedureDocument, type Procedure } from ".";

const build = aPlan();
const { basis, machine, site, kind: _, ...rest } = build;

/** The same as it was frozen in version 2. */
const old = {
  ...rest,
  schemaVersion: 2,
  revision: basis.revision,
  machineName: machine.name,
  machineLine: machine.line,
  machineModel: machine.model,
  defects: machine.defects,
  siteName: site.name,
  timeZone: site.timeZone,
  imageName: basis.image.name,
  imageCheck: basis.image.check,
  profileName: basis.profile,
  management: basis.management,
  passwordRule: "8 characters",
  drives: basis.drives,
  sheet: basis.sheet,
};
const read = (document: unknown): Procedure => {
  const answer = readDocument(procedureDocument, document);
  if (!answer.ok) throw new Error(answer.problems.join("; "));
  return answer.value;
};

describe("a run of version 2", () => {
  it("reads as the same procedure", () => expect(read(old)).toEqual(build));

  it("tells its drives by its expectations where they were not frozen yet", () => {
    const told = buildBasis(read({ ...old, drives: null }))!.drives;
    expect(told.target).toMatchObject([{ name: basis.drives.target[0]!.name, holds: "" }]);
    expect(told.target[0]!.look).not.toContain("…");
    expect(told.leftAlone).toEqual(basis.drives.leftAlone);
  });

  it("has no model and no defects where they were not kept", () => {
    const { machineModel: __, defects: ___, ...older } = old;
    expect(read(older).machine).toEqual({ ...machine, model: "", defects: [] });
  });
});

it("a procedure without a sheet has what all have, and a question", () => {
  const drill = {
    ...build,
    kind: "drill",
    number: "D-0001",
    basis: { question: "Does it start by itself?" },
  };
  const one = read(drill);
  expect([buildBasis(one), numberWords(one), numberWords(build)]).toEqual([null, "D-0001", "B-0001 rev A"]);
  expect(readDocument(procedureDocument, { ...drill, kind: "build" }).ok).toBe(false);
});
