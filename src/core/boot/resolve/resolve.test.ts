import { describe, expect, it } from "vitest";
import {
  contents,
  device,
  entry,
  FALLBACK_PATH,
  legacy,
  loader,
  onPartition,
  port,
  stick,
  uefi,
  volume,
} from "../../../../tests/support/boot-machines";
import { seeded } from "../../../../tests/support/random";
import { parseDevicePath } from "../path";
import { QUESTIONS, REASONS, resolveBoot, type BootMachine, type Loader, type ReasonCode } from ".";

const OS = "\\EFI\\os\\a.efi";
const disk = (...loaders: Loader[]) => device("A", 0, { contents: contents([volume(1, loaders)]) });
const first = entry("0001", onPartition(1));
const started = (machine: BootMachine) => {
  const { end } = resolveBoot(machine);
  return end.kind === "system" ? end.starts : end.kind;
};
const withEntry = (d: Parameters<typeof uefi>[0], path = onPartition(1)) =>
  uefi({ entries: [entry("0001", path)], order: ["0001"], ...d });
const disc = (changes: object) =>
  device("C", 2, { kind: "disc", removable: true, contents: contents([], changes) });
const firmware = { setup: { label: "Set-up", guid: "s" }, shell: { label: "Shell", guid: "h" } };
const running = (conduct: Loader["conduct"]) => withEntry({ devices: [disk(loader(OS, { conduct }))] });

/** For each reason a machine whose firmware gives it. */
const REACHED: readonly [ReasonCode, BootMachine][] = [
  ["entry inactive", withEntry({ entries: [{ ...first, active: false }], devices: [disk(loader(OS))] })],
  [
    "entry application",
    withEntry({ entries: [{ ...first, application: true }], devices: [disk(loader(OS))] }),
  ],
  ["entry missing", uefi({ order: ["0009"], devices: [disk(loader(FALLBACK_PATH))] })],
  [
    "entry removed",
    withEntry(
      { entries: [entry("0001", "PciRoot(0x0)/Pci(0x4,0x0)/USB(0,0)", { own: true })], devices: [disk()] },
      "",
    ),
  ],
  ["entry dropped", withEntry({ devices: [disk(loader(OS)), stick("U")], emulatorOrder: ["U"] })],
  ["device absent", withEntry({ devices: [{ ...disk(loader(OS)), present: false }] })],
  ["device hidden", withEntry({ devices: [{ ...disk(loader(OS)), hidden: "card not enabled" }] })],
  ["partition missing", withEntry({ devices: [disk(loader(OS))] }, onPartition(2))],
  [
    "table unreadable",
    withEntry({ devices: [device("A", 0, { contents: contents([volume(1, [])], { unreadable: true }) })] }),
  ],
  ["file missing", withEntry({ devices: [disk()] })],
  ["no fallback loader", uefi({ order: null, devices: [disk(loader(OS))] })],
  [
    "other architecture",
    uefi({ order: null, devices: [disk(loader("\\EFI\\BOOT\\BOOTIA32.EFI", { arch: "ia32" }))] }),
  ],
  [
    "no file system",
    withEntry({ devices: [device("A", 0, { contents: contents([volume(1, [], { fat: false })]) })] }),
  ],
  ["not a program", withEntry({ devices: [disk(loader(OS, { arch: null }))] })],
  ["wrong code", withEntry({ devices: [disk(loader(OS, { arch: "aa64" }))] })],
  ["not signed", withEntry({ secureBoot: true, devices: [disk(loader(OS, { signed: false }))] })],
  ["shell refused", uefi({ secureBoot: true, programs: firmware })],
  ["loader error", running("returns an error")],
  ["loader returned", running("returns success")],
  ["loader hangs", running("hangs")],
  ["second stage refused", running("refuses its second stage")],
  ["no UEFI image", uefi({ order: null, devices: [disc({ images: [] })] })],
  ["no medium", uefi({ order: null, devices: [device("C", 2, { kind: "disc", contents: "no medium" })] })],
  ...(
    [
      ["nobody", "nobody answers"],
      ["no boot file", "no boot file"],
      ["file missing", "boot file missing"],
      ["no program", "boot file no program"],
      ["link down", "link down"],
    ] as const
  ).map(([kind, code]): [ReasonCode, BootMachine] => [
    code,
    withEntry({ devices: [port("N", { kind })] }, "MAC(02610a000014,1)/IPv4(0.0.0.0)"),
  ]),
  ["needs compatibility", withEntry({}, "BBS(HD,,0x0)")],
  ["path unreadable", withEntry({}, "HD(1,GPT")],
  ["no disk", legacy({})],
  ["no floppy", legacy({})],
  [
    "sectors unreadable",
    legacy({ devices: [device("A", 0, { contents: contents([], { sectorBytes: 4096 }) })] }),
  ],
  [
    "beyond reach",
    legacy({
      devices: [
        {
          ...device("A", 0, {
            contents: contents([], {
              sizeBytes: 3 * 2 ** 40,
              code: { signature: true, conduct: "starts the system", starts: "", loads: 5e9 },
            }),
          }),
          kind: "usb drive",
        },
      ],
    }),
  ],
  [
    "no signature",
    legacy({
      devices: [
        device("A", 0, {
          contents: contents([], { code: { signature: false, conduct: "hangs", starts: "" } }),
        }),
      ],
    }),
  ],
  [
    "gave up",
    legacy({
      devices: [
        device("A", 0, {
          contents: contents([], { code: { signature: true, conduct: "gives up", starts: "" } }),
        }),
      ],
    }),
  ],
  [
    "code hangs",
    legacy({
      devices: [
        device("A", 0, {
          contents: contents([], { code: { signature: true, conduct: "hangs", starts: "" } }),
        }),
      ],
    }),
  ],
  ["no catalogue", legacy({ devices: [disc({})] })],
  [
    "UEFI image only",
    legacy({ devices: [disc({ images: [{ platform: "uefi", volume: volume(1, []), starts: "" }] })] }),
  ],
];

describe("every reason why something does not start", () => {
  it.each(REACHED)("is given: %s", (code, machine) => {
    const found = resolveBoot(machine).attempts.find((a) => a.reason === code);
    expect(found?.outcome).toBe(REASONS[code].outcome);
    const waits = [
      "nobody answers",
      "no boot file",
      "boot file missing",
      "boot file no program",
      "link down",
    ];
    expect((found?.seconds ?? 0) > 0).toBe(waits.includes(code) || code === "no floppy");
  });

  it("has a case here", () => {
    expect(new Set(REACHED.map(([code]) => code))).toEqual(new Set(Object.keys(REASONS)));
  });
});

describe("what is taken for granted", () => {
  const unread = device("A", 0, { contents: contents([volume(1, null)]) });
  const good = disk(loader(FALLBACK_PATH, { starts: "the disk" }));
  const CASES: [keyof typeof QUESTIONS, BootMachine, string, string][] = [
    [
      "second disk",
      legacy({
        devices: [
          device("A", 0, {
            contents: contents([], { code: { signature: false, conduct: "hangs", starts: "" } }),
          }),
          device("B", 1, { contents: contents([]) }),
        ],
      }),
      "nothing",
      "the boot code",
    ],
    ["own entries", uefi({ devices: [good] }), "the disk", "nothing"],
    [
      "removable first",
      uefi({
        order: null,
        devices: [
          good,
          stick("U", { contents: contents([volume(1, [loader(FALLBACK_PATH, { starts: "the stick" })])]) }),
        ],
      }),
      "the stick",
      "the disk",
    ],
    [
      "fallback of a lost entry",
      withEntry({
        entries: [first, entry("0002", "Sata(9,0,0)/File(\\b.efi)"), entry("0003", onPartition(2))],
        order: ["0001", "0003"],
        devices: [
          good,
          device("B", 1, { contents: contents([volume(2, [loader(OS, { starts: "the other" })])]) }),
        ],
      }),
      "the other",
      "the disk",
    ],
    [
      "return ends",
      withEntry({
        entries: [first, entry("0002", onPartition(2))],
        order: ["0001", "0002"],
        devices: [
          disk(loader(OS, { conduct: "returns success" })),
          device("B", 1, { contents: contents([volume(2, [loader(OS, { starts: "the other" })])]) }),
        ],
      }),
      "set-up",
      "the other",
    ],
    [
      "present",
      withEntry({ devices: [{ ...disk(loader(OS)), present: null }] }),
      `the system of ${OS}`,
      "nothing",
    ],
    [
      "seen",
      withEntry({ devices: [{ ...disk(loader(OS)), hidden: "unknown" }] }),
      `the system of ${OS}`,
      "nothing",
    ],
    ["starts something", uefi({ order: null, devices: [unread] }), "nothing", ""],
    ["has the file", withEntry({ devices: [unread] }), "", "nothing"],
    ["carries", withEntry({ devices: [device("A", 0)] }), "", "nothing"],
    [
      "secure boot",
      withEntry({ secureBoot: null, devices: [disk(loader(OS, { signed: false }))] }),
      "nothing",
      `the system of ${OS}`,
    ],
    [
      "signed",
      withEntry({ secureBoot: true, devices: [disk(loader(OS, { signed: null }))] }),
      `the system of ${OS}`,
      "nothing",
    ],
    [
      "compatibility",
      withEntry(
        { compatibility: null, devices: [device("A", 0, { contents: contents([]) })] },
        "BBS(HD,,0x0)",
      ),
      "nothing",
      "the boot code",
    ],
    ["answers", withEntry({ devices: [port("N", null)] }, "MAC(02610a000014,1)"), "nothing", ""],
  ];
  const endOf = (end: ReturnType<typeof resolveBoot>["end"]) =>
    end.kind === "system" ? end.starts : end.kind;

  it.each(CASES)("is told with what follows otherwise: %s", (code, machine, likely, otherwise) => {
    const { end, depends } = resolveBoot(machine);
    expect(endOf(end)).toBe(likely);
    expect(depends.filter((d) => d.question.code === code).map((d) => endOf(d.otherwise.end))).toContain(
      otherwise,
    );
  });

  it("has a case here", () => {
    expect(new Set(CASES.map(([code]) => code))).toEqual(new Set(Object.keys(QUESTIONS)));
  });

  it("is nothing where everything was read and no two firmwares differ", () => {
    expect(resolveBoot(withEntry({ devices: [disk(loader(OS))] })).depends).toEqual([]);
  });
});

describe("facts of firmware that no measured case here shows", () => {
  const other = (n: number, starts: string) =>
    device("B", n, { contents: contents([volume(1, [loader(OS, { starts })])]) });

  it("finds a clone where it was found the last time, also when an earlier place has one now", () => {
    const clones = withEntry({ devices: [disk(loader(OS, { starts: "port 0" })), other(1, "port 1")] });
    expect(started(clones)).toBe("port 0");
    const place = "root:0/pci:31.2/sata:1.65535.0";
    expect(started({ ...clones, remembered: new Map([["GPT guid-1 1", place]]) })).toBe("port 1");
  });

  it("does not try the second clone when the first lacks the file", () => {
    expect(started(withEntry({ devices: [disk(), other(1, "port 1")] }))).toBe("nothing");
  });

  it("uses the fallback loader for an entry that names a partition and no file", () => {
    expect(started(withEntry({ devices: [disk(loader(FALLBACK_PATH))] }, "HD(1,GPT,guid-1)"))).toBe(
      `the system of ${FALLBACK_PATH}`,
    );
  });

  it("looks for a bare file on removable media first", () => {
    const both = [
      disk(loader(OS)),
      stick("U", { contents: contents([volume(2, [loader(OS, { starts: "stick" })])]) }),
    ];
    expect(started(withEntry({ devices: both }, `File(${OS})`))).toBe("stick");
    expect(started(withEntry({ devices: both }, OS))).toBe("stick");
  });

  it("starts any stick, or the one with a serial, by their short forms", () => {
    const u = stick("U", {
      label: "Pebble PBL37742",
      contents: contents([volume(1, [loader(FALLBACK_PATH)])]),
    });
    for (const path of ["UsbMassStorage(0xffff,0xffff,6,80)", 'UsbWwid(1,2,0,"PBL37742")'])
      expect(started(withEntry({ devices: [u] }, path))).toBe(`the system of ${FALLBACK_PATH}`);
    expect(resolveBoot(withEntry({ devices: [] }, 'UsbWwid(1,2,0,"X")')).attempts[0]?.reason).toBe(
      "device absent",
    );
  });

  it("boots with a fixed URI, and goes on where nothing is known of the network", () => {
    const answering = port("N", { kind: "program", starts: "net" });
    expect(
      started(withEntry({ devices: [answering] }, "MAC(02610a000014,1)/IPv4()/Uri(http://h/a.efi)")),
    ).toBe("net");
  });

  it("asks for the set-up pages before everything else", () => {
    const { end, attempts } = resolveBoot(withEntry({ toSetup: true, devices: [disk(loader(OS))] }));
    expect([end.kind, attempts.map((a) => a.via)]).toEqual(["set-up", ["set-up"]]);
  });
});

describe("any machine at all", () => {
  const random = seeded(20_261_126);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  const PATHS = [
    onPartition(1),
    onPartition(2),
    "HD(1,GPT",
    "",
    "BBS(HD)",
    `File(${OS})`,
    "Sata(1,2,3)",
    "MAC(02610a000014,1)/Uri()",
    "VenHw(a)",
    "FvVol(a)/FvFile(h)",
    "PciRoot(0x0)/Pci(0x1f,0x2)/Sata(1,65535,0)",
    "\u0000\u0007(",
  ];
  const someContents = () =>
    pick([
      null,
      "no medium" as const,
      contents([]),
      contents([volume(1, null), volume(2, [loader(OS), loader(FALLBACK_PATH)])], { code: null }),
      contents(
        [volume(1, [loader(OS, { signed: null, conduct: pick(["hangs", "returns success"] as const) })])],
        {
          unreadable: random() < 0.2,
        },
      ),
    ]);
  const some = (n: number) =>
    device(`d${n}`, n, {
      kind: pick(["drive", "stick", "disc", "floppy", "network port", "boot card", "SAN volume"] as const),
      ...{ present: pick([true, false, null]), hidden: pick([null, "unknown", "not mapped"] as const) },
      ...{
        contents: someContents(),
        removable: random() < 0.5,
        path: random() < 0.5 ? null : device("x", n).path,
      },
      system: pick([null, { name: "Saddler 22", isSure: random() < 0.5 }]),
    });
  const ids = (n: number) =>
    Array.from({ length: n }, (_, i) => i.toString(16).toUpperCase().padStart(4, "0"));

  it("comes to an end, each attempt with an outcome that its reason has", () => {
    for (let round = 0; round < 300; round++) {
      const devices = Array.from({ length: Math.floor(random() * 12) }, (_, n) => some(n));
      const entries = ids(Math.floor(random() * 20)).map((id) =>
        entry(id, pick(PATHS), { own: random() < 0.3, active: random() < 0.8, application: random() < 0.1 }),
      );
      const order = random() < 0.2 ? null : ids(25).filter(() => random() < 0.7);
      const more = { devices, secureBoot: pick([true, false, null]), once: pick([null, "0001", "0099"]) };
      const machine =
        random() < 0.3
          ? legacy({ devices, strict: random() < 0.2 })
          : uefi({ ...more, entries, order, programs: firmware });
      const { attempts, end } = resolveBoot(machine);
      for (const a of attempts) expect(a.outcome).toBe(a.reason ? REASONS[a.reason].outcome : "starts");
      if (end.kind === "system") expect(attempts.at(-1)?.device).toBe(end.device);
    }
  });

  it("carries 200 entries, and an order that names what does not exist", () => {
    const entries = ids(200).map((id) => entry(id, onPartition(7)));
    const machine = uefi({ entries, order: [...ids(260)].reverse(), devices: [disk(loader(FALLBACK_PATH))] });
    const { attempts } = resolveBoot(machine);
    expect(attempts.filter((a) => a.reason === "entry missing")).toHaveLength(60);
    expect(started(machine)).toBe(`the system of ${FALLBACK_PATH}`);
    expect(parseDevicePath("\u0000").fault).not.toBeNull();
  });
});
