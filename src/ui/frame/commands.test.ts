import { describe, expect, it } from "vitest";
import { commandsFor } from "./commands";

const titles = (query: string, build = "") => commandsFor(query, build).map((c) => c.title);

describe("commands of the find box", () => {
  it("are all offered before anything is typed, those of an open sheet first", () => {
    expect(titles("")).toContain("Create build sheet");
    expect(titles("")).not.toContain("History of this build sheet");
    expect(titles("", "b-1")[0]).toBe("History of this build sheet");
    expect(commandsFor("history", "b-1")[0]?.does).toEqual({ href: "/builds/b-1/history" });
  });

  it("are found by their words and by others that people use", () => {
    expect(titles("new build")[0]).toBe("Create build sheet");
    expect(titles("dark")).toEqual(["Switch between light and dark theme"]);
    expect(titles("night")).toContain("Switch between light and dark theme");
    expect(titles("spreadsheet")).toEqual(["Import a list of machines"]);
    expect(titles("nothing like it")).toEqual([]);
  });

  it("tell of keys by what these do", () => {
    expect(titles("apply fix")).toEqual(["T: apply the suggested fix"]);
    expect(commandsFor("secure boot", "")[0]).toMatchObject({ kind: "key", does: "show keys" });
  });
});
