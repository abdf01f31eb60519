import { describe, expect, it } from "vitest";
import { looksLikeMachineList, parseMachineList, writeCsv } from "./csv";

describe("a list of machines", () => {
  it("is read with any separator and the usual column names", () => {
    const rows = {
      ok: true,
      value: [
        {
          line: 2,
          name: "wrk-1",
          site: "Works",
          serial: "OST-1",
          memoryBytes: 64 * 2 ** 30,
          macs: ["02:61:0a:00:00:14"],
        },
      ],
    };
    for (const sep of [",", ";", "\t"]) {
      const text = `\uFEFFHost name${sep}Site${sep}Serial number${sep}Memory${sep}MAC\r\nwrk-1${sep}Works${sep}OST-1${sep}64 GiB${sep}02-61-0A-00-00-14\r\n\r\n`;
      expect(parseMachineList(text)).toMatchObject(rows);
    }
  });

  it("spoils only the rows that are wrong, and names their lines", () => {
    const text =
      'name,site,mac,cores,colour\nwrk-1,Works,,8,red\n,Works,,,\nwrk-2,Works,no-mac,,\nwrk-3,Works,,many,\n"wrk-4, old",Works,,,\nwrk-1,Works,,,\n';
    const read = parseMachineList(text);
    expect(read.ok && read.value.map((m) => m.name)).toEqual(["wrk-1", "wrk-4, old"]);
    expect(read.ok && read.warnings.map((w) => [w.line, w.message])).toEqual([
      [3, "this line has no name"],
      [4, '"no-mac" is not a MAC address'],
      [5, '"many" is not a number of cores'],
      [7, "wrk-1 is in the list twice"],
      [1, 'unknown column "colour" is ignored'],
    ]);
  });

  it("without a header is refused", () => {
    expect(parseMachineList("wrk-1,Works\nwrk-2,Works\n")).toMatchObject({
      ok: false,
      problems: [{ line: 1 }],
    });
    expect(looksLikeMachineList("wrk-1,Works")).toBe(false);
  });

  it("takes no last line that has no end, which may be cut off in its last value", () => {
    const text = "name,site,serial\nwrk-1,Works,OST-1\nwrk-2,Works,OST-2";
    const read = parseMachineList(text);
    expect(read.ok && read.value.map((m) => m.name)).toEqual(["wrk-1"]);
    expect(read).toMatchObject({ warnings: [{ line: 3, message: expect.stringMatching(/has no end/) }] });
    expect(parseMachineList(`${text}\n`)).toMatchObject({ value: [{ name: "wrk-1" }, { serial: "OST-2" }] });
  });

  it("is written so that it reads back, and no spreadsheet runs a cell", () => {
    const text = writeCsv(["name", "site", "notes"], [["wrk-1", "Works", '=HYPERLINK("x"), "quoted"']]);
    expect(text).toBe(`name,site,notes\r\nwrk-1,Works,"'=HYPERLINK(""x""), ""quoted"""\r\n`);
    expect(parseMachineList(text)).toMatchObject({
      ok: true,
      value: [{ name: "wrk-1", notes: `=HYPERLINK("x"), "quoted"` }],
    });
  });

  // A machine whose name came back with a quote in front was taken for a new one.
  it.each(["=sum", "+49 rack", "-old", "@lab", "'quoted", "''twice", "'=both", "it's", "plain"])(
    "brings the name %s back as it was",
    (name) => {
      const read = parseMachineList(writeCsv(["name", "site"], [[name, "Works"]]));
      expect(read.ok && read.value.map((m) => m.name)).toEqual([name]);
    },
  );
});
