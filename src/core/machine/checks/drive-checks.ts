import { evidence } from "../../finding";
import { formatBytes } from "../../units";
import { driveName, holdsData, isSoundMember, presentDrives } from "../facts/describe";
import { judgeDrive } from "../drives/health";
import { driveCheck, readBy, say, type MachineCheck } from "./context";

export const driveChecks: readonly MachineCheck[] = [
  driveCheck("drive.failing", (context) =>
    presentDrives(context.document.facts)
      .map((drive) => ({ drive, ...judgeDrive(drive) }))
      .filter((j) => j.verdict === "failing")
      .map(({ drive, reasons }) =>
        say(
          "caution",
          "storage.target",
          { drive: driveName(drive), reasons: reasons.join("; ") },
          reasons.map((r) => evidence("health", r, readBy(context, `drives.${drive.id}.health`))),
          drive.id,
        ),
      ),
  ),

  driveCheck("drive.watch", (context) =>
    presentDrives(context.document.facts)
      .map((drive) => ({ drive, ...judgeDrive(drive) }))
      .filter((j) => j.verdict === "watch")
      .map(({ drive, reasons }) =>
        say(
          "note",
          "storage.target",
          { drive: driveName(drive), reasons: reasons.join("; ") },
          reasons.map((r) => evidence("health", r, readBy(context, `drives.${drive.id}.health`))),
          drive.id,
        ),
      ),
  ),

  driveCheck("drive.unread", (context) => {
    const used = presentDrives(context.document.facts).filter(
      (d) =>
        holdsData(d) &&
        judgeDrive(d).verdict === "not known" &&
        d.presentedBy === null &&
        d.media !== "virtual",
    );
    if (used.length === 0) return null;
    return say(
      "note",
      "storage.target",
      { drives: used.length === 1 ? "one" : "several", count: String(used.length) },
      used
        .slice(0, 6)
        .map((d) =>
          evidence(
            driveName(d),
            "no operating hours, no error counters",
            "smartctl not imported, or without data",
          ),
        ),
    );
  }),

  driveCheck("drive.moved-in", ({ document, pasts }) =>
    pasts.flatMap((past) => {
      const drive = presentDrives(document.facts).find((d) => d.id === past.driveId);
      if (!drive || past.cameFrom === null) return [];
      const test = drive.health?.selfTest;
      const testedHere =
        test?.passed === true &&
        /extended|long/i.test(test.kind) &&
        (past.hoursAtMove === null || (test.atHours ?? 0) >= past.hoursAtMove);
      if (testedHere) return [];
      return say(
        "caution",
        "storage.target",
        { drive: driveName(drive), from: past.cameFrom },
        [
          evidence("before in", past.cameFrom, "drive inventory"),
          evidence(
            "long self-test since",
            test ? `${test.kind}: ${test.passed ? "passed" : "not passed"}, before it moved` : "none",
            "smartctl",
          ),
        ],
        drive.id,
      );
    }),
  ),

  driveCheck("drive.elsewhere", ({ document, pasts }) =>
    pasts.flatMap((past) => {
      const drive = presentDrives(document.facts).find((d) => d.id === past.driveId);
      if (!drive || past.alsoIn === null) return [];
      return say(
        "caution",
        "storage.target",
        { drive: driveName(drive), other: past.alsoIn },
        [
          evidence(past.alsoIn, `also lists ${drive.id} as present`, "its hardware data"),
          evidence("here", `lists ${drive.id}`, "imported"),
        ],
        drive.id,
      );
    }),
  ),

  driveCheck("drive.same-serial", ({ document: { facts } }) => {
    const twice = presentDrives(facts).filter((d) => d.id.includes("@"));
    return twice.map((d) =>
      say(
        "caution",
        "storage.target",
        { serial: d.serial ?? "", name: d.seenAs },
        [evidence("serial", d.serial ?? "", `reported by two drives, one of them ${d.seenAs}`)],
        d.id,
      ),
    );
  }),

  driveCheck("drive.size-unknown", ({ document: { facts } }) =>
    presentDrives(facts)
      .filter((d) => d.sizeBytes === 0)
      .map((d) =>
        say(
          "caution",
          "storage.target",
          { drive: d.model ?? d.id },
          [evidence("size", "0 or implausible", "imported")],
          d.id,
        ),
      ),
  ),

  driveCheck("drive.idle-space", (context) =>
    presentDrives(context.document.facts).flatMap((d) => {
      const parts = (d.contents ?? []).filter((c) => c.part !== d.seenAs);
      const used = parts.reduce((sum, c) => sum + c.sizeBytes, 0);
      const idle = d.sizeBytes - used;
      // Alignment and spare tables take a few MiB; a fifth of the drive and 20 GB is space that nobody planned.
      if (!parts.some((c) => c.mountedAt.length > 0) || idle < Math.max(d.sizeBytes / 5, 20e9)) return [];
      return say(
        "note",
        "storage.target",
        {
          drive: driveName(d),
          idle: formatBytes(idle),
          share: `${Math.round((100 * idle) / d.sizeBytes)} %`,
        },
        [
          evidence("size", formatBytes(d.sizeBytes), readBy(context, `drives.${d.id}.sizeBytes`)),
          evidence("in partitions", formatBytes(used), readBy(context, `drives.${d.id}.contents`)),
        ],
        d.id,
      );
    }),
  ),

  driveCheck("drive.set-as-drive", ({ document: { facts } }) =>
    presentDrives(facts)
      .filter((d) => d.presentedBy !== null)
      .map((d) => {
        const set = facts.sets.find((s) => s.name === d.presentedBy);
        return say(
          "note",
          "storage.target",
          {
            drive: driveName(d),
            set: d.presentedBy ?? "",
            ...(set?.level ? { level: "told", raid: set.level } : { level: "not told" }),
            members: String(set?.members.length ?? 0),
          },
          [evidence("virtual drive", `${d.presentedBy}, ${set?.level ?? "?"}`, "the controller")],
          d.id,
        );
      }),
  ),

  driveCheck("machine.set-degraded", (context) =>
    context.document.facts.sets
      .filter((s) => s.health === "degraded" || s.health === "failed")
      .map((s) =>
        say(
          "caution",
          "storage.target",
          {
            set: s.id,
            state: s.state,
            // A scrub reads, and makes nothing whole.
            ...(s.progress && s.progress.what !== "scrub"
              ? { cure: "wait" as const, percent: String(s.progress.percent) }
              : { cure: "repair" as const }),
            members:
              s.members
                .filter((m) => !isSoundMember(m.state))
                .map((m) => `${m.name} ${m.state}`)
                .join(", ") || "as the tool reports",
          },
          [evidence(s.id, s.state, readBy(context, `sets.${s.id}`))],
          s.id,
        ),
      ),
  ),

  driveCheck("machine.pool-behind-raid", (context) => {
    const { sets, storageControllers, drives } = context.document.facts;
    const raid = storageControllers.filter((c) => c.mode === "RAID");
    const pools = sets.filter((s) => s.kind === "pool");
    const behind = pools.filter((p) =>
      p.members.some((m) => {
        const drive = drives.find((d) => d.id === m.drive);
        return drive?.presentedBy || raid.some((c) => c.id === drive?.controller);
      }),
    );
    return behind.map((p) =>
      say(
        "caution",
        "storage.target",
        { pool: p.name, controller: raid[0]?.name ?? "a RAID controller" },
        [
          evidence(
            "controller",
            `${raid[0]?.name ?? "?"}, RAID mode`,
            readBy(context, `storageControllers.${raid[0]?.id ?? ""}`),
          ),
          evidence("pool", p.name, readBy(context, `sets.${p.id}`)),
        ],
        p.id,
      ),
    );
  }),
];
