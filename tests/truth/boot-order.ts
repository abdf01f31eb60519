import { basename } from "node:path";
import { z } from "zod";
import { deviceMeant, knownOf, Oracle, walkLegacy, walkUefi } from "@/core/boot";
import type { Attempt, End, ReasonCode, UefiMachine } from "@/core/boot";
import { beforeSchema, deviceSchema, entrySchema, machineOf } from "./boot-order-rig";
import { eachCase, listsOf, type Compared, type TruthReader } from "./reader";

const attemptSchema = z.looseObject({
  entry: z.string().nullish(),
  bootType: z.string().nullish(),
  device: z.string().nullish(),
  outcome: z.string(),
  message: z.string().nullish(),
  stage: z.string().nullish(),
  status: z.string().nullish(),
  marker: z.string().nullish(),
  via: z.string().nullish(),
  seconds: z.number().nullish(),
  then: z.string().nullish(),
  startedFrom: z.looseObject({ file: z.string().nullish() }).nullish(),
});
type Measured = z.infer<typeof attemptSchema>;

export const scenarioSchema = z.looseObject({
  id: z.string(),
  firmware: z.enum(["uefi", "bios"]),
  follows: z.string().nullish(),
  devices: z.array(deviceSchema),
  stateBefore: beforeSchema,
  observed: z.looseObject({
    attempts: z.array(attemptSchema),
    started: z.string().nullish(),
    startedDevice: z.string().nullish(),
    firmwareFallback: z.string().nullish(),
    noBootableDevice: z.boolean().nullish(),
    orderWalked: z.array(z.string()).nullish(),
    stateAfter: z.looseObject({ entries: z.array(entrySchema).nullish() }).nullish(),
  }),
});
export type Scenario = z.infer<typeof scenarioSchema>;

const VIA = { once: "BootNext", order: "BootOrder", "set-up": "firmware menu (not by BootOrder)" };
const LOAD = { outcome: "not found", stage: "load", status: "Not Found" };

/** What the firmware of the rig says where an attempt does not start; everything else is not found. */
const SAID: Partial<Record<ReasonCode, { outcome: string; stage?: string; status?: string }>> = {
  "entry inactive": { outcome: "skipped" },
  "entry application": { outcome: "skipped" },
  "entry removed": { outcome: "skipped" },
  "entry dropped": { outcome: "skipped" },
  "not signed": { outcome: "failed", stage: "load", status: "Access Denied" },
  "shell refused": { outcome: "failed", stage: "start", status: "Security Violation" },
  "wrong code": { outcome: "failed", stage: "start", status: "Unsupported" },
  "loader error": { outcome: "failed", stage: "start", status: "Load Error" },
  "loader returned": { outcome: "started" },
  "loader hangs": { outcome: "started" },
  "second stage refused": { outcome: "started" },
};

/** An attempt of the resolver in the words of the file. */
const told = (a: Attempt) => ({
  entry: a.entry,
  via: VIA[a.via],
  ...(a.reason ? (SAID[a.reason] ?? LOAD) : { outcome: "started" }),
});

/** The same of what was measured; a wait that ran out is a "not found" that took long. */
const seen = (m: Measured) => ({
  entry: m.entry ?? null,
  via: m.via ?? null,
  outcome: m.outcome === "timed out" ? "not found" : m.outcome,
  ...(m.stage != null && { stage: m.stage }),
  ...(m.status != null && { status: m.status }),
});

function* uefiAttempts(
  id: string,
  measured: readonly Measured[],
  derrick: readonly Attempt[],
): Generator<Compared> {
  yield { what: `${id}, attempts`, measured: measured.map(seen), derrick: derrick.map(told) };
  for (const [i, m] of measured.entries()) {
    const d = derrick[i];
    const what = `${id}, attempt ${i + 1}`;
    if (m.device && m.outcome !== "skipped")
      yield { what: `${what}, device`, measured: m.device, derrick: d?.device?.id ?? "firmware" };
    if (m.startedFrom?.file)
      yield {
        what: `${what}, file`,
        measured: m.startedFrom.file.toLowerCase(),
        derrick: d?.file?.toLowerCase(),
      };
    // What a server hands out is not noted with the devices; that it ran is compared above.
    if (m.marker && d?.device?.kind !== "network port")
      yield { what: `${what}, what ran`, measured: m.marker, derrick: d?.starts };
    // The rig was loaded: half a minute parts what waits for the network from what does not.
    if (m.seconds != null && m.outcome !== "started")
      yield { what: `${what}, takes long`, measured: m.seconds > 30, derrick: (d?.seconds ?? 0) > 30 };
  }
}

const FALLBACK: Partial<Record<End["kind"], string>> = {
  shell: "shell",
  "set-up": "firmware setup",
  nothing: "no bootable option, firmware waits for a key",
};

type Remembered = UefiMachine["remembered"];

const isTakenAway = ({ reason }: Attempt): boolean =>
  reason === "entry removed" || reason === "entry dropped";

function* compareUefi(scenario: Scenario, before: Remembered): Generator<Compared, Remembered> {
  const { id, observed, devices, stateBefore } = scenario;
  const machine = machineOf("uefi", devices, stateBefore, before) as UefiMachine;
  const known = knownOf(machine);
  const walked = walkUefi(known, new Oracle());
  const { attempts, end } = walked;
  const after = walked.after();
  // An id without an entry leaves no trace in the firmware's log, and what was taken away has none any more.
  yield* uefiAttempts(
    id,
    observed.attempts,
    attempts.filter((a) => a.reason !== "entry missing" && !(a.via === "once" && isTakenAway(a))),
  );
  const hung = end.kind === "hangs" && attempts.at(-1)?.reason === "loader hangs";
  const ran = end.kind === "system" ? end.starts : hung ? attempts.at(-1)!.starts : null;
  if (end.kind === "system" && end.device.kind === "network port")
    yield { what: `${id}, something started`, measured: observed.started != null, derrick: true };
  else yield { what: `${id}, started`, measured: observed.started ?? null, derrick: ran };
  yield {
    what: `${id}, started from`,
    measured: observed.startedDevice ?? null,
    derrick: "device" in end && ran !== null ? (end.device?.id ?? null) : null,
  };
  if (end.kind !== "hangs")
    yield {
      what: `${id}, ends in`,
      measured: observed.firmwareFallback ?? null,
      derrick: FALLBACK[end.kind] ?? null,
    };
  yield { what: `${id}, order`, measured: observed.orderWalked ?? [], derrick: [...after.order] };
  for (const { num, targetDevice } of observed.stateAfter?.entries ?? []) {
    const entry = after.entries.get(num);
    if (entry && after.order.includes(num) && !Array.isArray(targetDevice))
      yield {
        what: `${id}, device of entry ${num}`,
        measured: targetDevice,
        derrick:
          entry.path.nodes[0]?.kind === "firmware" ? "firmware" : (deviceMeant(known, entry)?.id ?? null),
      };
  }
  return after.remembered;
}

const TYPE_OF = { disk: "hard disk", disc: "cd", floppy: "floppy", network: "network (option ROM)" };
const MESSAGES: Partial<Record<ReasonCode, string>> = {
  "no signature": "Boot failed: not a bootable disk",
  "no disk": "Boot failed: could not read the boot disk",
  "no floppy": "Boot failed: could not read the boot disk",
  "sectors unreadable": "Boot failed: could not read the boot disk",
  "no catalogue": "Boot failed: Could not read from CDROM (code 0004)",
  "no medium": "Boot failed: Could not read from CDROM (code 0003)",
  "UEFI image only": "Boot failed: Could not read from CDROM (code 0009)",
};

const legacyType = (a: Attempt): string => {
  const kind = a.device?.kind;
  if (!kind) return TYPE_OF[a.reason === "no floppy" ? "floppy" : "disk"];
  if (kind === "network port") return TYPE_OF.network;
  return kind === "disc" ? TYPE_OF.disc : kind === "floppy" ? TYPE_OF.floppy : TYPE_OF.disk;
};

/** Whether code was given control; what gave it back without a word is logged as a failure by the rig. */
const wasStarted = (a: Attempt): boolean =>
  a.outcome === "starts" || a.outcome === "hangs" || a.outcome === "returns";
const gaveBack = (m: Measured): boolean => /control back/.test(`${m.then ?? ""} ${m.message ?? ""}`);

function* compareLegacy({ id, observed, devices, stateBefore }: Scenario): Generator<Compared> {
  const machine = machineOf("bios", devices, stateBefore, new Map());
  if (machine.mode !== "legacy") return;
  const { attempts, end } = walkLegacy(machine, new Oracle());
  // With a restart after a failure the same round is seen again until the rig was switched off.
  const rounds = Math.max(1, Math.floor(observed.attempts.length / Math.max(1, attempts.length)));
  const all = end.kind === "nothing" ? Array.from({ length: rounds }, () => attempts).flat() : attempts;
  yield {
    what: `${id}, attempts`,
    measured: observed.attempts.map((m) => ({
      type: m.bootType,
      device: m.device ?? null,
      started: m.outcome === "started" || gaveBack(m),
    })),
    derrick: all.map((a) => ({
      type: legacyType(a),
      device: a.device?.id ?? null,
      started: wasStarted(a) || a.device?.kind === "network port",
    })),
  };
  for (const [i, m] of observed.attempts.entries()) {
    const d = all[i];
    if (m.message?.startsWith("Boot failed"))
      yield {
        what: `${id}, attempt ${i + 1}, message`,
        measured: m.message,
        derrick: d?.reason && MESSAGES[d.reason],
      };
    yield { what: `${id}, attempt ${i + 1}, gives back`, measured: gaveBack(m), derrick: isGivenBack(d) };
  }
  yield {
    what: `${id}, started from`,
    measured: observed.startedDevice ?? null,
    derrick: end.kind === "system" ? end.device.id : null,
  };
  const isKnown = end.kind === "system" && end.starts && end.device.kind !== "network port";
  if (isKnown) yield { what: `${id}, started`, measured: observed.started, derrick: end.starts };
  yield {
    what: `${id}, nothing starts`,
    measured: observed.noBootableDevice ?? false,
    derrick: end.kind === "nothing",
  };
}

const isGivenBack = (a: Attempt | undefined): boolean =>
  a?.outcome === "returns" || (a?.device?.kind === "network port" && a.outcome === "fails");

/** All cases of a file, one by one; a case that follows another begins with what that one left in the firmware. */
export function* compareScenarios(scenarios: unknown): Generator<Compared> {
  const left = new Map<string, Remembered>();
  yield* eachCase(scenarios, "scenarios", scenarioSchema, function* (scenario) {
    if (scenario.firmware === "bios") yield* compareLegacy(scenario);
    else left.set(scenario.id, yield* compareUefi(scenario, left.get(scenario.follows ?? "") ?? new Map()));
  });
}

export const bootOrderReader: TruthReader = {
  name: "boot order",
  reads: (path) => /^boot-order.*\.json$/.test(basename(path)),
  compare: (path) => compareScenarios(listsOf(path).scenarios),
};
