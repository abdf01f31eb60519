/** Every key that does something, by where it does. */
export const KEY_GROUPS = [
  {
    title: "Everywhere",
    keys: [
      ["/", "find a machine, image, sheet, finding or step"],
      ["1 to 6", "go to menu section 1 to 6"],
      ["?", "show these shortcuts"],
      ["Esc", "close the dialog, leave the field"],
    ],
  },
  {
    title: "Editing",
    keys: [
      ["U", "undo your last change"],
      ["Shift U", "redo"],
    ],
  },
  {
    title: "Lists",
    keys: [
      ["↓  ↑", "previous or next row, also from the filter"],
      ["Enter", "open the row"],
    ],
  },
  {
    title: "Build sheet",
    keys: [
      ["A to K", "open or close a zone"],
      ["]  [", "next and previous finding"],
      ["R", "show suggested fix and reason"],
      ["T", "apply the suggested fix"],
      [".", "go to the next hint, on a first sheet"],
      ["M", "findings panel, in a narrow window"],
      ["P", "go to the boot diagram, in zone C"],
      ["X", "the main action of the footer bar"],
    ],
  },
  {
    title: "Boot diagram",
    keys: [
      ["arrows", "next device, or boot scenario"],
      ["Shift ← →", "earlier or later in the permanent boot order"],
      ["O", "boot the medium once, or put it first permanently"],
      ["L", "UEFI or legacy BIOS"],
      ["S", "Secure Boot on or off"],
      ["W", "next boot source"],
    ],
  },
  {
    title: "Machine",
    keys: [
      ["F  R", "go to the front or rear drawing"],
      ["arrows", "next bay, port or controller"],
      ["Enter", "move to its details"],
      ["Esc", "close its details"],
    ],
  },
  {
    title: "Run",
    keys: [
      ["Enter", "confirm as expected"],
      ["D", "record that the screen differs"],
      ["N", "add a note"],
      ["R", "record a measurement"],
      ["S", "skip this step, with a reason"],
      ["T", "restart the timer"],
      ["C", "copy the first value to type"],
      ["K", "open the answer card next to the run"],
      ["L", "show the log"],
    ],
  },
] as const;
