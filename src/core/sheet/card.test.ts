import { expect, it } from "vitest";
import { isGuard } from "../work";
import { naming } from "../../../tests/support/steps";
import { aBuild, aDrive } from "../../../tests/support/builds";
import { aStick } from "../../../tests/support/firing-roads";
import { answerCard } from "../answers";
import { formatBytes } from "../units";
import { deriveSteps } from ".";

const plan = aBuild({ drives: [aDrive("NV-0001", {}), aDrive("NV-0002", {})] });
const steps = deriveSteps(plan);
const card = answerCard(steps);

it("has the screens of the installer in their order, then those of the first start, and no work beside them", () => {
  expect(card.map((s) => s.id)).toEqual(steps.filter((s) => /^(screen|first)-/.test(s.id)).map((s) => s.id));
  expect(card.map((s) => s.after).lastIndexOf("installer")).toBeLessThan(
    card.findIndex((s) => s.after === "first start"),
  );
  expect(card.find((s) => s.id === "screen-writing")?.waitSeconds).toBeGreaterThan(0);
  expect(answerCard([])).toEqual([]);
});

it("says at each screen that touches a drive which may be named, and never the serial that is asked for", () => {
  const guarded = steps.flatMap((s, i) => (naming(s) ? [steps.slice(i).find((n) => !isGuard(n))!.id] : []));
  expect(guarded.length).toBeGreaterThan(1);
  expect(card.filter((s) => s.drives.length > 0).map((s) => s.id)).toEqual(guarded);
  expect(JSON.stringify(card)).not.toMatch(/V-0001/);
});

it("says what is compared before the key, which a run asks for", () => {
  const [drive] = plan.machine!.document.facts.drives;
  expect(card.find((s) => s.id === "screen-confirm")?.compare).toEqual([
    "a fresh installation, not an upgrade",
    `version ${plan.image!.version}`,
    `${formatBytes(drive!.sizeBytes ?? 0)}`,
  ]);
  expect(card.filter((s) => s.compare.length > 0)).toHaveLength(1);
});

it("says nothing at a screen of the stick that was named before it was written", () => {
  const sheet = { "image.way": "stick", "image.stick.key": "ST-0007" };
  const written = deriveSteps(aBuild({ sheet, sticks: [aStick()] }));
  const before = written.findIndex((s) => s.id.includes("screen-"));
  expect(written.slice(0, before).some(isGuard)).toBe(true);
  expect(answerCard(written)[0]?.drives).toEqual([]);
  expect(JSON.stringify(answerCard(written))).not.toContain("blue stick");
});
