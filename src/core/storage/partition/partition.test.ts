import { describe, expect, it } from "vitest";
import { layOut, type TableTool } from ".";

const disk = (bytes: number, sectorBytes = 512) => ({ bytes, sectorBytes });
const WHOLE = [{ use: "linux" as const, bytes: null }];

describe("a partition table", () => {
  it("ends where its tool ends it", () => {
    const end = (tool: TableTool) => {
      const [p] = layOut(tool, "gpt", disk(480_103_981_056), WHOLE).partitions;
      return p!.start + p!.sectors;
    };
    expect(end("sgdisk") - end("sfdisk")).toBe(1679);
    expect(end("sfdisk")).toBe(end("parted"));
  });

  it("of an MBR is cut short above 2 TiB by one tool, and refused by the other", () => {
    const large = disk(4_000_787_030_016);
    expect(layOut("sfdisk", "dos", large, WHOLE).fault).toMatchObject({ kind: "cut short" });
    expect(layOut("parted", "dos", large, WHOLE).fault?.words).toMatch(
      /exceeds the msdos-partition-table-imposed maximum/,
    );
    expect(layOut("sfdisk", "dos", disk(4_000_787_030_016, 4096), WHOLE).fault).toBeNull();
  });

  it.each([
    ["a disk that is too small", disk(2 ** 20), WHOLE],
    ["a disk of nothing", disk(0), WHOLE],
    ["more than the disk", disk(2 ** 30), [{ use: "linux" as const, bytes: 2 ** 31 }]],
    ["a rest of which nothing is left", disk(2 ** 30), [{ use: "linux" as const, bytes: 2 ** 30 }, ...WHOLE]],
  ])("is refused for %s", (_, on, wanted) => {
    for (const tool of ["sgdisk", "sfdisk", "parted"] as const)
      expect(layOut(tool, "gpt", on, wanted).fault?.kind).toBe("refused");
  });
});
