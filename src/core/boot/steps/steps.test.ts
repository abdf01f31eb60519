import { describe, expect, it } from "vitest";
import { sees } from "../../../../tests/support/steps";
import { aBuild, aDrive, type BuildChanges } from "../../../../tests/support/builds";
import { legViews } from "../../image";
import { mediaIn, restart, settings } from "./firmware";
import { sanSteps } from "./san";

const CD = {
  id: "0001",
  active: true,
  kind: "optical" as const,
  path: "PciRoot(0x0)/Pci(0x14,0x0)/USB(4,0)",
};
const listing = (...labels: string[]): BuildChanges => ({
  facts: {
    firmware: {
      ...{ mode: "uefi", order: ["0001"] },
      entries: labels.map((label, i) => ({ ...CD, id: `000${i}`, label, path: `${CD.path}/CDROM(0x${i})` })),
    },
  },
});
const start = (changes: BuildChanges) => {
  const [view] = legViews(aBuild(changes));
  return mediaIn(view!).find((s) => s.id.endsWith("one-time"))!;
};

describe("the step that starts the medium", () => {
  it("asks for the key to be noted until its time is known, and then says it", () => {
    const noted = (keys: object) => start({ document: { typed: { keys } } }).do.join(" ");
    expect(noted({ bootMenu: "F11" })).toMatch(
      /press F11 when the vendor's logo appears.*record it as a measurement/,
    );
    expect(noted({ bootMenu: "F11", seconds: 12 })).toMatch(
      /Restart and press F11 about 12 s after power-on/,
    );
    expect(noted({ bootMenu: "F11", seconds: 12 })).not.toContain("reading");
  });

  it("names the entry by the words of this firmware's own list", () => {
    const step = start(listing("Virtual Optical Drive"));
    expect(step.do.join(" ")).toContain('choose "Virtual Optical Drive" in UEFI mode');
    expect(sees(step)).toEqual(['"Virtual Optical Drive" marked UEFI']);
  });

  it.each<[string, BuildChanges]>([
    ["no output was imported", {}],
    ["two lines look alike", listing("Virtual CD", "Virtual Floppy CD")],
    ["the only one is a drive of the machine", listing("Internal DVD")],
  ])("calls it as the plan does where %s", (_, changes) => {
    expect(sees(start(changes))).toEqual(["An entry for virtual CD marked UEFI"]);
  });
});

describe("what is set for the installation only", () => {
  const steps = (changes: BuildChanges) => restart(legViews(aBuild(changes)).at(-1)!);
  it.each<[string, BuildChanges, string[]]>([
    ["nothing", {}, []],
    ["secure boot", { sheet: { "boot.secureBoot": "off to install" } }, ["Secure Boot on"]],
    ["network boot", { sheet: { "image.way": "network" } }, ["network boot off"]],
  ])("%s is put back before the last restart", (_, changes, back) => {
    const plan = aBuild(changes);
    expect(sees(steps(changes).find((s) => s.id === "settings-back")) ?? []).toEqual(back);
    expect(settings(plan).do.filter((d) => d.startsWith("For the installation only"))).toHaveLength(
      back.length,
    );
  });
});

describe("the step that looks at the settings", () => {
  it("leaves the permanent order alone, or tells it with what must be written down", () => {
    expect(settings(aBuild()).do).toContain("Do not change the permanent boot order.");
    const ordered = aBuild({
      drives: [aDrive("NV-0001", {}), aDrive("NV-0002", { model: "Alder 960" })],
      sheet: { "boot.order": ["NV-0002", "NV-0001"] },
    });
    expect(settings(ordered).do.join(" ")).toContain(
      "Permanent boot order: Alder 960, then Alder 480. Record the old order.",
    );
  });
});

it("a target on a storage network is seen to be this machine's alone before it is written; a drive of its own is not asked of", () => {
  expect(sanSteps(aBuild())).toEqual([]);
  const [step] = sanSteps(aBuild({ drives: [aDrive("NV-0001", { san: "iSCSI", sanPaths: 2 })] }));
  expect(step!.do[0]).toMatch(/Ask the storage administrator which initiators can access the iSCSI volume/);
  expect(step!.do[0]).not.toContain("NV-0001");
});
