import { describe, expect, it } from "vitest";
import { EXCEPTIONS, OLD_WORDS } from "../support/old-words";
import { shownTexts } from "../support/shown";

const TEXTS = shownTexts().map(({ at, text }) => ({ at, text: text.replaceAll(/\{\w+\}/g, "…").trim() }));
const isAllowed = (text: string): boolean => EXCEPTIONS.some(([allowed]) => allowed.test(text));

describe("texts that people see", () => {
  it("are found: labels between tags, attributes, messages, steps, profiles and the page of the rules", () => {
    const has = (place: RegExp, text: string): boolean =>
      TEXTS.some((t) => place.test(t.at) && t.text === text);
    expect(has(/planned-sets\.tsx:\d+$/, "Additional arrays and pools")).toBe(true);
    expect(has(/boot-zone\.tsx:\d+$/, "Boot menu key")).toBe(true);
    expect(has(/messages\.en\.ts:\d+$/, "Secure Boot must be off")).toBe(true);
    expect(has(/fit\/steps\.ts:\d+$/, "Identify the machine")).toBe(true);
    expect(has(/^profiles\//, "Set the network manually")).toBe(true);
    expect(TEXTS.filter((t) => t.at.startsWith("docs/checks.md")).length).toBeGreaterThan(200);
  });

  it("have no word that only Derrick used", () => {
    const slips = TEXTS.filter(({ text }) => !isAllowed(text)).flatMap(({ at, text }) =>
      OLD_WORDS.flatMap(([old, term]) => {
        const found = old.exec(text);
        return found ? [`${at} "${text}": not "${found[0]}" but ${term}`] : [];
      }),
    );
    expect(slips).toEqual([]);
  });

  it("need each exception", () => {
    const idle = EXCEPTIONS.filter(([allowed]) => !TEXTS.some(({ text }) => allowed.test(text)));
    expect(idle.map(([, reason]) => reason)).toEqual([]);
  });
});
