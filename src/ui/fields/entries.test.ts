import { expect, it } from "vitest";
import { CIRCUIT, DEVICE, RANGE, RESERVATION } from "@/core/site";
import { laid, pastedCells, readTexts } from "./entries";

it("reads the rows that are not empty, and tells each cell that does not fit by its place", () => {
  const texts = [
    ["A1", "2300"],
    ["", " "],
    ["A2", "many"],
    ["", "900"],
  ];
  expect(readTexts(texts, CIRCUIT)).toEqual({
    rows: [{ name: "A1", limitWatts: 2300 }],
    problems: [
      { row: 2, column: 1, message: "a number of watts above 0, for example 2300" },
      { row: 3, column: 0, message: "a circuit needs a name" },
    ],
  });
});

it.each([
  [
    "a spreadsheet",
    "A1\t2300\r\nA2\t900\r\n",
    [
      ["A1", "2300"],
      ["A2", "900"],
    ],
  ],
  [
    "quoted cells with a line end",
    '"rack A,\n left"\t2300\nA2\t900',
    [
      ["rack A, left", "2300"],
      ["A2", "900"],
    ],
  ],
  [
    "comma-separated lines",
    "A1,2300\nA2,900",
    [
      ["A1", "2300"],
      ["A2", "900"],
    ],
  ],
  ["one column", "A1\nA2\n", [["A1"], ["A2"]]],
])("takes %s as cells", async (_, text, cells) => {
  expect(await pastedCells(text, { ...CIRCUIT, cells: CIRCUIT.cells.slice(1) })).toEqual(cells);
});

it("takes lines of words whose first fits the first column, the last column taking the rest", async () => {
  expect(await pastedCells("10.61.10.4 10.61.10.9\n10.61.10.50  10.61.10.59", RANGE)).toEqual([
    ["10.61.10.4", "10.61.10.9"],
    ["10.61.10.50", "10.61.10.59"],
  ]);
  expect(await pastedCells("02:61:0a:00:00:09 10.61.10.9 rack A power strip", RESERVATION)).toEqual([
    ["02:61:0a:00:00:09", "10.61.10.9", "rack A power strip"],
  ]);
});

it("leaves one text to its cell", async () => {
  expect(await pastedCells("switch in rack A", DEVICE)).toBeNull();
  expect(await pastedCells("switch, left of the door", DEVICE)).toBeNull();
});

it("lays a block from a cell on: rows are made, what lies beyond the last column is left out", () => {
  expect(
    laid(
      [["A1", "1"]],
      [
        ["x", "y"],
        ["z", "w"],
      ],
      { row: 0, column: 1 },
      2,
    ),
  ).toEqual([
    ["A1", "x"],
    ["", "z"],
  ]);
});
