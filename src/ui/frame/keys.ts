/** Every key that does something, by where it does. */
export const KEY_GROUPS = [
  {
    title: "Everywhere",
    keys: [
      ["/", "find a machine, image, sheet, finding or step"],
      ["1 to 6", "open a drawer"],
      ["?", "this list"],
      ["Esc", "close a slip, leave a field"],
    ],
  },
  {
    title: "Where you write",
    keys: [
      ["U", "undo your last change"],
      ["Shift U", "make it again"],
    ],
  },
  {
    title: "Lists",
    keys: [
      ["↓  ↑", "from row to row, from the field that narrows too"],
      ["Enter", "open it"],
    ],
  },
  {
    title: "Build sheet",
    keys: [
      ["A to K", "open or fold a zone"],
      ["]  [", "next and previous finding"],
      ["R", "what to do about it, and why"],
      ["T", "take its cure, where it offers one"],
      [".", "to the next thing to do, on a first sheet"],
      ["M", "margin, in a narrow window"],
      ["P", "into the picture of the start, in zone C"],
      ["X", "the main action of the title block"],
    ],
  },
  {
    title: "Picture of the start",
    keys: [
      ["arrows", "to the next device, or moment"],
      ["Shift ← →", "earlier or later in the order, for good"],
      ["O", "the medium once, or for good"],
      ["L", "UEFI or legacy"],
      ["S", "secure boot on or off"],
      ["W", "the next way to the machine"],
    ],
  },
  {
    title: "Machine",
    keys: [
      ["F  R", "into the front or the rear drawing"],
      ["arrows", "to the next bay, port or controller"],
      ["Enter", "its card into the margin"],
      ["Esc", "close the card"],
    ],
  },
  {
    title: "Run",
    keys: [
      ["Enter", "as expected"],
      ["D", "differs"],
      ["N", "note"],
      ["R", "reading"],
      ["S", "skip this step, with its reason"],
      ["T", "start the timer again"],
      ["C", "copy the first value to type"],
      ["K", "the answer card, beside the run"],
      ["L", "log"],
    ],
  },
] as const;
