import { readdirSync } from "node:fs";
import { expect, it } from "vitest";
import { isGuard } from "../work";
import { NOW, shippedProfile } from "../../../tests/support/builds";
import { exampleSteps } from ".";

const files = readdirSync("profiles").map((f) => f.replace(".yaml", ""));

it.each(files)(
  "%s makes its steps on a plain machine, with a guard before what erases, and nothing left open",
  (file) => {
    const profile = shippedProfile(file);
    const steps = exampleSteps(profile, NOW);
    const ids = steps.map((s) => s.id);
    for (const screen of profile.screens.filter((s) => s.when === "always"))
      expect(ids).toContain(`screen-${screen.id}`);
    const erasing = steps.findIndex((s) => s.deeds.some((d) => d.kind === "drives overwritten"));
    expect(steps.slice(0, erasing).some(isGuard)).toBe(true);
    expect(steps.filter((s) => JSON.stringify(s).includes("does not decide")).map((s) => s.id)).toEqual([]);
  },
);
