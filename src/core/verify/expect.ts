import { z } from "zod";
import { isSecureAfter, switchWords } from "../boot";
import { driveName, drivesOf, standingWords } from "../machine";
import { modeWords } from "../work";
import { isAddress, portOf, portsBelow, prefixLengthOf, segmentOf } from "../network";
import type { Sources } from "../sheet";
import {
  dispositionOf,
  figuresOf,
  isToBeMade,
  kindWords,
  layoutName,
  setsNow,
  targetsOf,
  typeWords,
  type PlannedSet,
} from "../storage";
import { formatBytes } from "../units";
import { CHASSIS_LINE } from "./chassis";

/** Plans from before a target could be several drives name one, and a port without its address. */
const matchOf = (value: unknown): unknown => {
  if (typeof value !== "object" || value === null || !("kind" in value)) return value;
  return value.kind === "target" && "drive" in value ? { ...value, drives: [value.drive] } : value;
};

/** One thing that the installed system must show; `planned` is for people, `match` for the comparison. */
export const expectationSchema = z.object({
  id: z.string(),
  zone: z.string(),
  what: z.string(),
  planned: z.string(),
  match: z.preprocess(
    matchOf,
    z.discriminatedUnion("kind", [
      z.object({ kind: z.literal("fact"), path: z.string(), equals: z.string() }),
      z.object({ kind: z.literal("secure boot"), on: z.boolean() }),
      z.object({ kind: z.literal("system"), id: z.string(), version: z.string() }),
      z.object({ kind: z.literal("host name"), name: z.string(), full: z.string() }),
      z.object({ kind: z.literal("address"), address: z.string(), prefixLength: z.number().nullable() }),
      z.object({ kind: z.literal("name servers"), all: z.array(z.string()) }),
      z.object({ kind: z.literal("port"), mac: z.string(), address: z.string().default("") }),
      z.object({
        kind: z.literal("target"),
        drives: z.array(z.string()),
        marks: z.array(z.string()).default([]),
      }),
      z.object({
        kind: z.literal("set"),
        made: z.enum(["pool", "array", "virtual drive"]),
        name: z.string(),
        /** "raidz2", "RAID6"; of several groups with how many. */
        level: z.string(),
        members: z.array(z.string()),
        spares: z.array(z.string()),
        special: z.array(z.string()).default([]),
        logs: z.array(z.string()).default([]),
        caches: z.array(z.string()).default([]),
        sizeBytes: z.number(),
        /** How far its size may be from that, as a share: a controller rounds as it likes. */
        within: z.number(),
      }),
      z.object({ kind: z.literal("untouched"), drive: z.string(), holds: z.string() }),
      z.object({
        kind: z.literal("start"),
        drives: z.array(z.string()),
        marks: z.array(z.string()).default([]),
      }),
      z.object({ kind: z.literal("free space"), leastShare: z.number() }),
      z.object({ kind: z.literal("clock") }),
      /** Each as "22/tcp". */
      z.object({ kind: z.literal("listening"), ports: z.array(z.string()) }),
    ]),
  ),
});
export type Expectation = z.infer<typeof expectationSchema>;

/** A system volume with less than this share free fills at the first large update. */
const LEAST_FREE_SHARE = 0.1;

type Match = Expectation["match"];
const expect = (id: string, zone: string, what: string, planned: string, match: Match): Expectation[] =>
  planned === "" ? [] : [{ id, zone, what, planned, match }];

const fact = (path: string, equals: string): Match => ({ kind: "fact", path, equals });

/** What acceptance must find, drawn from the plan; what the plan does not decide is not asked. */
export function planExpectations(context: Sources): Expectation[] {
  const { sheet, profile, machine, image } = context;
  const { network, answers, boot } = sheet;
  const serial = machine?.document.facts.chassis?.serial ?? "";
  return [
    ...expect(CHASSIS_LINE, "A", "Chassis serial", serial, fact("chassis.serial", serial)),
    ...(profile && image
      ? expect("system", "B", "System and version", `${profile.name} ${image.version}`, {
          kind: "system",
          id: profile.identify.id,
          version: image.version,
        })
      : []),
    ...expect("mode", "C", "Boot mode", modeWords(boot.mode), fact("firmware.mode", boot.mode)),
    ...expect(
      "secure-boot",
      "C",
      "Secure Boot",
      boot.mode === "uefi" ? switchWords(isSecureAfter(boot)) : "",
      {
        kind: "secure boot",
        on: isSecureAfter(boot),
      },
    ),
    ...storage(context),
    ...addressing(context),
    ...expect(
      "name-servers",
      "E",
      "DNS servers",
      network.school === "fixed" ? network.nameServers.join(", ") : "",
      { kind: "name servers", all: network.nameServers },
    ),
    ...naming(answers),
    ...expect("clock", "F", "Time", "synchronised; collected after the last restart", { kind: "clock" }),
  ];
}

function storage(context: Sources): Expectation[] {
  const members = targetsOf(context)
    .filter((t) => t.role === "member")
    .map((t) => t.drive);
  const marks = context.profile?.identify.marks ?? [];
  const ids = members.map((d) => (isToBeMade(d) ? `virtual drive ${d.presentedBy}` : d.id));
  return [
    ...expect(
      "target",
      "D",
      members.length > 1 ? `System drives, ${context.sheet.storage.layout}` : "System drive",
      members.map(driveName).join("; "),
      { kind: "target", drives: ids, marks },
    ),
    // No tool tells in which order a legacy firmware starts.
    ...expect(
      "next-start",
      "C",
      "Next restart boots",
      context.sheet.boot.mode === "uefi" ? members.map(driveName).join("; ") : "",
      { kind: "start", drives: ids, marks },
    ),
    ...expect("free-space", "D", "Free space on the system volume", "at least 10 %", {
      kind: "free space",
      leastShare: LEAST_FREE_SHARE,
    }),
    ...setsNow(context.sheet.storage.sets).flatMap((set) => planned(context, set)),
    ...drivesOf(context)
      .filter((d) => dispositionOf(d, context.sheet.storage) === "leave alone")
      .flatMap((d) =>
        expect(`untouched-${d.id}`, "D", `${driveName(d)}, protected`, standingWords(d), {
          kind: "untouched",
          drive: d.id,
          holds: standingWords(d),
        }),
      ),
  ];
}

/** A tool counts to the byte what Derrick counts; what a controller keeps for itself is not told. */
const EXACT = 0.002;
const ROUNDED = 0.03;

/** A set that the build makes: its layout, its drives and its size; one that cannot be made is asked for by nothing. */
function planned(context: Sources, set: PlannedSet): Expectation[] {
  const figures = figuresOf(context, set);
  if (!figures.ok) return [];
  const { toldBytes: sizeBytes, candidate } = figures.value;
  // A controller tells one level, whatever spans it is made of.
  const level = `${set.groups > 1 && set.keeper === "ZFS" ? `${set.groups} × ` : ""}${typeWords(set)}`;
  return expect(
    ...([`set-${set.id}`, "D", `${kindWords(set)} ${set.name}`] as const),
    `${layoutName(candidate.layout)}, ${formatBytes(sizeBytes)}`,
    {
      ...{ kind: "set", made: kindWords(set), name: set.name, level, sizeBytes },
      ...{ members: set.members, spares: set.spares },
      ...{ special: set.special, logs: set.logs, caches: set.caches },
      within: set.keeper === "RAID controller" ? ROUNDED : EXACT,
    },
  );
}

function addressing(context: Sources): Expectation[] {
  const { network } = context.sheet;
  const port = portOf(context);
  const length = prefixLengthOf(segmentOf(context)?.prefix ?? "");
  const fixed = network.school === "dynamic" ? "" : network.address;
  // Where nobody planned services, nothing is expected of them.
  const ports = [...new Set(network.services.map((s) => `${s.port}/${s.protocol}`))];
  return [
    ...(port
      ? expect(
          "port",
          "E",
          "Port",
          [port.mac, fixed && `with ${fixed}`, "link up"].filter(Boolean).join(", "),
          {
            kind: "port",
            mac: port.mac,
            address: fixed,
          },
        )
      : []),
    ...expect("address", "E", "Address", fixed && length !== null ? `${fixed}/${length}` : fixed, {
      kind: "address",
      address: fixed,
      prefixLength: length,
    }),
    ...network.interfaces.flatMap((one) => {
      const [mac] = portsBelow(network.interfaces, one.name);
      return mac && isAddress(one.address)
        ? expect(
            `address-${one.name}`,
            "E",
            `Address of ${one.name}`,
            `${mac}, with ${one.address}, link up`,
            {
              ...{ kind: "port" as const, mac, address: one.address },
            },
          )
        : [];
    }),
    ...expect(
      "gateway",
      "E",
      "Gateway",
      network.school === "fixed" ? network.gateway : "",
      fact("system.gateway", network.gateway),
    ),
    ...expect(
      "listening",
      "E",
      "Listening ports",
      ports.length > 0 ? `${ports.join(", ")} and no others` : "",
      {
        ...{ kind: "listening", ports },
      },
    ),
  ];
}

function naming(answers: Sources["sheet"]["answers"]): Expectation[] {
  const full = [answers.hostName, answers.domain].filter(Boolean).join(".");
  return [
    ...expect("host-name", "F", "Host name", full, { kind: "host name", name: answers.hostName, full }),
    ...expect("time-zone", "F", "Time zone", answers.timeZone, fact("system.timeZone", answers.timeZone)),
    ...expect("locale", "F", "Locale", answers.locale, fact("system.locale", answers.locale)),
    ...expect(
      "keyboard",
      "F",
      "Keyboard layout",
      answers.keyboard,
      fact("system.keyboard", answers.keyboard),
    ),
  ];
}
