import { describe, expect, it } from "vitest";
import { runRows } from "@/db";
import { armMachine, disarm } from "@/server/netboot/arm";
import { bootBoard } from "@/server/netboot/board";
import { runView, command } from "@/server/runs";
import { walkMachine, type Told } from "../../simulators/netboot-client/machine";
import { ownBootService } from "../support/boot-service";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";
import { fleetOf, type FleetMember } from "../support/fleet";

// Forty machines are armed and start over the network at once, three of them with a fault; each run goes on by what its own
// machine asks for and tells.

ownDatabase();
const COUNT = 40;
const fleet = fleetOf(COUNT);
const service = ownBootService(() => fleet.text);
const PACE = 20_000;

const arm = async ({ build, serial }: FleetMember, minutes = 60) => {
  const armed = await armMachine(await desk(), build, { typed: serial.slice(-6), minutes, asksCode: false });
  if (!armed.ok) throw new Error(armed.problems.map((p) => p.message).join(" "));
  return armed.value.id;
};
const walk = (member: FleetMember): Promise<Told> => walkMachine(member, { base: service.base, pace: PACE });
const rowOf = async ({ build }: FleetMember) =>
  (await bootBoard(await desk())).rows.find((r) => r.buildId === build)!;
const runOf = async ({ build }: FleetMember) => {
  const at = await desk();
  return (await runView(at, (await runRows.openOf(at.db, build))!))!;
};
const current = async (member: FleetMember): Promise<string> => {
  const { plan, state } = await runOf(member);
  return plan.steps[state.current]?.id ?? "none";
};
let keys = 0;
const answer = async (member: FleetMember, body: Record<string, unknown>) => {
  const { id, plan, state } = await runOf(member);
  const done = await command(await desk(), id, `k${(keys += 1)}`, {
    ...body,
    ...(body["kind"] === "resumed" ? {} : { step: plan.steps[state.current]!.id }),
  });
  expect(done).toMatchObject({ ok: true });
};
/** A person's own steps before the machine is armed. */
const upToArming = async (member: FleetMember) => {
  const { plan } = await runOf(member);
  for (const { id } of plan.steps.slice(
    0,
    plan.steps.findIndex((s) => s.id === "arm"),
  ))
    if ((await current(member)) === id) await answer(member, { kind: "as expected" });
};

describe("a batch of forty with three faulty ones", () => {
  const [stuck, broken, foreign] = [fleet.members[7]!, fleet.members[19]!, fleet.members[33]!];
  stuck.fault = "stands still";
  broken.fault = "fails";
  foreign.fault = "wrong serial";
  fleet.members[3]!.fault = "cut transfers";
  fleet.members[4]!.fault = "repeated reports";

  it("is armed, walks the whole chain at once, and each ends as it should", async () => {
    for (const member of fleet.members) await arm(member);
    const told = await Promise.all(fleet.members.map(walk));
    const ends = fleet.members.map((m, i) => [m.name, m.fault ?? "", told[i]!.ended, told[i]!.installed]);
    for (const [name, fault, ended, installed] of ends) {
      const stands = fault === "stands still" || fault === "fails";
      expect([name, ended]).toEqual([name, stands ? "stands still" : "starts from its disk"]);
      expect([name, installed]).toEqual([name, fault === "wrong serial" ? 0 : 1]);
    }
    expect(told[3]!.said).toContain("Derrick: The kernel or the initramfs could not be loaded or started.");
    expect(told[0]!.said.slice(-4)).toEqual([
      "Derrick: Already installed. Arm the machine again to reinstall it.",
      ...["Derrick: Booting from the local disk.", "starts from its own disk", "the first start is done"],
    ]);
  });

  it("ends with the right board: 37 done, one failed, one that stands still, one that was not let in", async () => {
    const { rows } = await bootBoard(await desk());
    const by = (status: string) => rows.filter((r) => r.state.status === status);
    expect(["done", "failed", "installing", "waiting"].map((s) => by(s).length)).toEqual([37, 1, 1, 1]);
    expect(by("failed")[0]).toMatchObject({
      arming: { machine: { name: broken.name } },
      state: { why: "the drive gave an error while it was written" },
    });
    expect(by("waiting")[0]).toMatchObject({ arming: { machine: { name: foreign.name } } });
    expect(by("waiting")[0]!.state.refusal).toMatch(
      /but its serial number differs from that of this machine/,
    );
    // In time, nobody knows that it stands still; then it is late.
    const { arming } = by("installing")[0]!;
    expect(arming.machine.name).toBe(stuck.name);
    const later = new Date(Date.parse(arming.at) + (arming.lateSeconds + 60) * 1000).toISOString();
    const late = (await bootBoard(await desk("J. Pell", later))).rows.filter((r) => r.state.lateSince);
    expect(late.map((r) => r.arming.machine.name)).toEqual([stuck.name]);
  });
});

describe("the run of an armed machine", () => {
  const member = fleet.members[0]!;

  it("was started by arming it, and goes on by itself as far as the machine came, once a person is there", async () => {
    expect(await current(member)).toBe("identity");
    expect(JSON.stringify((await runOf(member)).plan.steps)).not.toContain(member.serial.slice(-6));
    await upToArming(member);
    const { state, plan, log } = await runOf(member);
    expect(plan.steps[state.current]?.id).toBe("settings-back");
    const own = log.filter(({ event }) => event.by === "boot service");
    expect(own.map(({ event }) => "step" in event && event.step)).toEqual([
      ...["arm", "one-time", "files", "installs", "first-start"],
    ]);
    expect(state.strip).toMatchObject({ media: "none", target: "installed", nextBoot: "as ordered" });
  });

  it("stops where its machine told of a failure, and goes on when it is armed again", async () => {
    const broken = fleet.members[19]!;
    await upToArming(broken);
    expect((await runOf(broken)).state).toMatchObject({
      status: "stopped",
      stoppedBy: `${broken.name} reported a failed installation: the drive gave an error while it was written.`,
    });
    await answer(broken, { kind: "resumed", reason: "the drive was exchanged" });
    for (const id of ["files", "one-time"]) {
      await answer(broken, { kind: "differs", seen: "begin again", decision: "go back" });
      expect(await current(broken)).toBe(id);
    }
    await answer(broken, { kind: "differs", seen: "begin again", decision: "go back" });
    // The old arming ends no step twice.
    expect(await current(broken)).toBe("arm");
    await arm(broken);
    expect(await current(broken)).toBe("one-time");
    broken.fault = null;
    await walk(broken);
    expect(await current(broken)).toBe("settings-back");
  });

  it("stops when the installation is called off, and is not started for another state of the sheet", async () => {
    const [stuck, foreign] = [fleet.members[7]!, fleet.members[33]!];
    await upToArming(stuck);
    expect(await current(stuck)).toBe("installs");
    await disarm(await desk(), (await rowOf(stuck)).id);
    expect((await runOf(stuck)).state.stoppedBy).toMatch(/The installation of wrk-tm07 was cancelled by J/);
    await upToArming(foreign);
    expect(await current(foreign)).toBe("one-time");
  });
});

describe("what the server bears", () => {
  it("is not gone beyond: of twelve that ask at once no more are fed at a time than the link bears, and each comes to its turn", async () => {
    const batch = fleet.members.slice(20, 32);
    process.env["DERRICK_BOOT_LINK"] = "100";
    try {
      for (const member of batch) await arm(member);
      const bears = (await bootBoard(await desk())).atOnce!.value;
      expect(bears).toBeLessThan(6);
      const told = await Promise.all(batch.map((m) => walkMachine(m, { base: service.base, pace: 2000 })));
      expect(told.map((t) => t.installed)).toEqual(batch.map(() => 1));
      const spans = await Promise.all(batch.map(async (m) => (await rowOf(m)).state.reached));
      const fedAt = (at: string): number =>
        spans.filter((s) => s.script! <= at && at < s["first boot"]!).length;
      expect(Math.max(...spans.map((s) => fedAt(s.script!)))).toBe(bears);
      expect(told.some((t) => t.said.some((words) => words.includes("Queued")))).toBe(true);
    } finally {
      delete process.env["DERRICK_BOOT_LINK"];
    }
  });
});
