import { expect, it } from "vitest";
import { stickBoots } from ".";

it.each([
  ["as the image", ["uefi"], "uefi", true],
  ["as the image", ["uefi"], "legacy", false],
  ["legacy", ["uefi", "legacy"], "uefi", false],
  ["uefi", ["legacy"], "uefi", true],
  ["unknown", ["uefi"], "uefi", "unknown"],
] as const)("a stick written %s of an image for %j in %s mode: %s", (written, modes, mode, answer) =>
  expect(stickBoots(written, modes, mode)).toBe(answer),
);
