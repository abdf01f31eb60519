import { describe, expect, it } from "vitest";
import { fillCommand, fillWords, inForce, parameterSchema, parametersSchema, valuesOf, type Given } from ".";

const open = (name: string, value: string) => ({ name, value, isSecret: false });
const secret = (name: string) => ({ name, value: "", isSecret: true });
const given: Given = {
  profile: [open("console", "tty0"), open("mirror", "off")],
  site: [open("console", "tty0 ttyS0"), secret("enrol")],
  sheet: [open("empty", "")],
  machine: [open("console", "ttyS1,115200"), open("enrol", "typed all the same")],
};
const quoted = (value: string): string => `'${value.replaceAll("'", "'\\''")}'`;
const sealed = valuesOf(inForce(given), new Map([["parameter enrol", "k'ey"]]));

it("lets the machine go before the sheet, the site and the profile, and says which it goes before", () => {
  expect(inForce(given).find((p) => p.name === "console")).toEqual({
    ...{ name: "console", value: "ttyS1,115200", isSecret: false, from: "machine" },
    before: [
      { from: "profile", value: "tty0" },
      { from: "site", value: "tty0 ttyS0" },
    ],
  });
  expect(inForce(given).map((p) => p.name)).toEqual(["console", "empty", "enrol", "mirror"]);
});

it("shows no value of what is secret on any level, and takes none into a document", () => {
  expect(inForce(given).find((p) => p.name === "enrol")).toMatchObject({ isSecret: true, value: "" });
  expect(parameterSchema.safeParse({ name: "enrol", value: "x", isSecret: true }).success).toBe(false);
  for (const value of ["one\ntwo", "pässe", "http://me:pw@host.example/", "x".repeat(301)])
    expect(parameterSchema.safeParse({ name: "a", value }).success).toBe(false);
  for (const name of ["", "A", "1a", "a b", "a.b"])
    expect(parameterSchema.safeParse({ name, value: "" }).success).toBe(false);
  expect(parametersSchema.safeParse([open("a", "1"), open("a", "2")]).success).toBe(false);
});

describe("a command", () => {
  it("has each value as one quoted text, and braces of the shell as they are", () => {
    expect(fillCommand("enrol --key {parameter.enrol} ${HOME} {a,b}", sealed, quoted)).toEqual({
      ok: true,
      value: "enrol --key 'k'\\''ey' ${HOME} {a,b}",
    });
  });

  it.each([
    ["enrol {parameter.nothing}", "sheet or machine"],
    ["enrol '{parameter.enrol}'", "remove them"],
    ['enrol "it\\" is {parameter.enrol}"', "remove them"],
    ["enrol 'a\\' '{parameter.enrol}'", "remove them"],
  ])("is refused for %s", (command, words) => {
    const filled = fillCommand(command, sealed, quoted);
    expect(filled).toMatchObject({ ok: false, problem: expect.stringContaining(words) });
  });

  it("is refused where nobody has sealed its secret, and shows its name where nothing sealed is at hand", () => {
    const at = (map: ReadonlyMap<string, string> | null) =>
      fillCommand("enrol {parameter.enrol}", valuesOf(inForce(given), map), quoted);
    expect(at(new Map())).toMatchObject({
      problem: expect.stringContaining('the secret parameter "enrol" is not stored for this sheet'),
    });
    expect(at(null)).toEqual({ ok: true, value: "enrol 'the secret enrol'" });
  });
});

describe("the words of a kernel", () => {
  it("are filled, left out where their parameter is empty, and parted where they are nothing else", () => {
    const values = inForce({ ...given, machine: [] });
    expect(fillWords(["quiet", "mirror={parameter.mirror}", "x={parameter.empty}"], values)).toEqual({
      ok: true,
      value: ["quiet", "mirror=off"],
    });
    expect(fillWords(["{parameter.console}"], values)).toEqual({ ok: true, value: ["tty0", "ttyS0"] });
  });

  it("are refused with a blank inside, with a command of the boot loader, with a secret, and without a value", () => {
    const values = inForce({ ...given, sheet: [open("cmd", "a || b"), open("var", "${net0/mac}")] });
    for (const [word, problem] of [
      ["k={parameter.cmd}", 'the value of "cmd" contains a space'],
      ["{parameter.cmd}", "command of the boot loader"],
      ["v={parameter.var}", "command of the boot loader"],
      ["{parameter.lost}", 'the parameter "lost" is used'],
      ["key={parameter.enrol}", "is a secret"],
    ] as const)
      expect(fillWords([word], values)).toMatchObject({ problem: expect.stringContaining(problem) });
  });
});
