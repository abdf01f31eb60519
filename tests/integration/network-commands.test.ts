import { spawnSync } from "node:child_process";
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { describe, expect, it } from "vitest";
import {
  hostPlan,
  NETWORK_WRITERS,
  timedCommands,
  timedFiles,
  writeCommands,
  type Interface,
  type NetworkGround,
} from "@/core/network";
import { aBuild, MAC, shippedProfile } from "../support/builds";
import { HOST_PLANS, HOSTILE } from "../support/network-plans";

const run = (command: string, args: readonly string[], env: object = {}) =>
  spawnSync(command, args, { encoding: "utf8", timeout: 120_000, env: { ...process.env, ...env } });
const folder = () => mkdtempSync(join(tmpdir(), "derrick-commands-"));

/** A program of this name that writes down how it was called. */
function stub(at: string, name: string): void {
  writeFileSync(
    join(at, name),
    `#!/bin/sh\nprintf '%s\\0' "$@" >> ${at}/calls; printf '\\n\\0' >> ${at}/calls\n`,
  );
  chmodSync(join(at, name), 0o755);
}

const ground = (interfaces: object[], carrier: string | null = null, more: object = {}): NetworkGround =>
  aBuild({ sheet: { "network.interfaces": interfaces, "network.carrier": carrier, ...more } });
const group = (name: string, purpose: string, segment: string | null = "mgmt") => ({
  name,
  purpose,
  segment,
});
const virtual = (...groups: object[]) => ({
  ...{ kind: "virtual switch", name: "switch0", on: [MAC], segment: null, address: "", mtu: 9000, groups },
});
const cairn = shippedProfile("cairn-hypervisor-9").network;
const lines = (g: NetworkGround, profile = cairn) => {
  const told = writeCommands(g, profile);
  return told?.ok ? told.value : { lines: [JSON.stringify(told)], problems: [] };
};

describe("lines of a family's own tool", () => {
  it("make a virtual switch, its groups and the address on the group for management", () =>
    expect(
      lines(ground([virtual(group("Guests", "guests"), group("Console of us", "management"))], "switch0")),
    ).toEqual({
      lines: [
        ...["cairn-net switch add switch0", "cairn-net switch uplink switch0 eno1"],
        ...["cairn-net group add switch0 Guests", "cairn-net group add switch0 'Console of us'"],
        ...[
          "cairn-net switch mtu switch0 9000",
          "cairn-net address set 'Console of us' 10.61.10.20 255.255.255.0",
        ],
        ...["cairn-net route default 10.61.10.1", "cairn-net names set 10.61.10.2"],
      ],
      problems: [],
    }));
  it("say what the tool has no line for", () => {
    const bond: object = {
      kind: "bond",
      name: "bond0",
      on: [MAC],
      segment: null,
      address: "",
      mtu: null,
      mode: "802.3ad",
      hash: "layer2",
    };
    expect(lines(ground([bond])).problems.map((p) => p.message)).toEqual([
      expect.stringContaining("(a bond)"),
      expect.stringContaining("(a port of a bond)"),
    ]);
    expect(
      lines(ground([bond], "bond0"), shippedProfile("tussock-host-5").network).lines.slice(0, 2),
    ).toEqual([...["tussock-net bond bond0 802.3ad", "tussock-net join bond0 eno1"]]);
  });
  it("there are none for a family without such a tool, or while something is not told", () => {
    expect(writeCommands(ground([]), shippedProfile("saddler-linux-24").network)).toBeNull();
    expect(writeCommands(ground([], null, { "network.gateway": "router" }), cairn)).toMatchObject({
      ok: false,
    });
  });
  it.each(HOSTILE)("%j as a name is one word of the shell, or is refused", (text) => {
    const at = folder();
    stub(at, "cairn-net");
    const told = writeCommands(ground([virtual(group(text.slice(0, 64), "guests"))]), cairn);
    const name = text.slice(0, 64).trim();
    if (!told?.ok) return expect(name === "" || /^-|[\p{Cc}\u2028\u2029]/u.test(name)).toBe(true);
    const done = run("sh", ["-euc", told.value.lines.join("\n")], { PATH: `${at}:${process.env.PATH}` });
    expect(done.stderr).toBe("");
    const calls = readFileSync(join(at, "calls"), "utf8")
      .split("\n\0")
      .map((c) => c.split("\0").slice(0, -1));
    expect(calls.find((c) => c[0] === "group")).toEqual(["group", "add", "switch0", name]);
  });
});

describe("a change that puts itself back", () => {
  const netplan = NETWORK_WRITERS.netplan!(HOST_PLANS["a fixed address"]!).files;
  const path = netplan[0]!.path;

  /** Runs the script where only it sees its changes, then waits; gives what the file held before, after, and in the end. */
  function tried(before: string | null, keeps: boolean): { after: string; end: string; calls: number } {
    const at = folder();
    stub(at, "netplan");
    const script = join(at, "change.sh");
    writeFileSync(script, timedFiles("netplan", netplan));
    expect(run("shellcheck", ["-s", "sh", script]).stdout).toBe("");
    mkdirSync(join(at, "etc"));
    const show = (name: string): string =>
      `cat ${path} > ${at}/${name} 2>/dev/null || echo none > ${at}/${name}`;
    const whole = [
      `mkdir -p /etc/netplan; mount --bind ${at}/etc /etc/netplan`,
      before === null ? "" : `printf %s '${before}' > ${path}`,
      `sh ${script}`,
      show("after"),
      keeps ? `touch ${at}/keep` : "",
      "sleep 2",
      show("end"),
    ];
    const env = { PATH: `${at}:${process.env.PATH}`, WAIT_SECONDS: "1", KEEP_FILE: `${at}/keep` };
    const done = run("unshare", ["-m", "sh", "-euc", whole.filter(Boolean).join("\n")], env);
    expect(done.stderr).toBe("");
    const read = (name: string): string => readFileSync(join(at, name), "utf8");
    return { after: read("after"), end: read("end"), calls: read("calls").split("\n\0").length - 1 };
  }

  it.each([
    [
      "the old file comes back when nobody says that the new one works",
      "old",
      false,
      { end: "old", calls: 2 },
    ],
    ["the new one stays when somebody does", "old", true, { end: netplan[0]!.text, calls: 1 }],
    ["a file that was not there is taken away again", null, false, { end: "none\n", calls: 2 }],
  ])("%s", (_, before, keeps, expected) =>
    expect(tried(before, keeps)).toEqual({ after: netplan[0]!.text, ...expected }),
  );

  it("every format has its script, which the shell's own checker takes", () => {
    for (const [format, write] of Object.entries(NETWORK_WRITERS)) {
      const script = timedFiles(
        format as "netplan",
        write(HOST_PLANS["a VLAN on a bond below a bridge"]!).files,
      );
      const file = join(folder(), "x.sh");
      writeFileSync(file, script);
      expect(run("shellcheck", ["-s", "sh", file]).stdout, format).toBe("");
    }
  });

  it("a file is readable for those who read it: systemd-networkd and the look-up of names are not root", () => {
    const modes = Object.entries(NETWORK_WRITERS).flatMap(([format, write]) => {
      const script = timedFiles(format as "netplan", write(HOST_PLANS["a fixed address"]!).files);
      return [...script.matchAll(/^chmod (\d+) (\S+)$/gm)].map(([, mode, path]) => `${mode} ${path}`);
    });
    expect([...new Set(modes)].sort()).toEqual([
      "600 /etc/NetworkManager/system-connections/eno1.nmconnection",
      "600 /etc/netplan/50-derrick.yaml",
      "644 /etc/network/interfaces",
      "644 /etc/rc.conf",
      "644 /etc/resolv.conf",
      "644 /etc/systemd/network/10-eno1.link",
      "644 /etc/systemd/network/30-eno1.network",
    ]);
  });

  it("lines of a tool are framed where it can keep its state, and not where it cannot", () => {
    expect(timedCommands(["cairn-net switch add switch0"], cairn)).toMatch(
      /cairn-net state save "\$old\/state"\n[^]*cairn-net state load "\$old\/state"\n[^]*cairn-net switch add switch0/,
    );
    expect(timedCommands([], { files: [], commands: {} })).toBeNull();
  });
});

describe("the plan of a machine", () => {
  const named = (kind: Interface["kind"], name: string, on: string[], more: object = {}) => ({
    ...{ kind, name, on, segment: null, address: "", mtu: null, ...more },
  });
  const of = (g: NetworkGround) => hostPlan(g, { hostName: "wrk-hv1", domain: "marrowby.example" });
  it("puts the address on what carries it, below it all that it stands on", () => {
    const plan = of(
      ground(
        [
          named("bridge", "br0", ["v0"], { vlanAware: false }),
          named("vlan", "v0", [MAC], { vlan: 10, mtu: 9000 }),
        ],
        "br0",
      ),
    );
    expect(plan.ok && plan.value.links.map((l) => [l.kind, l.name, l.mtu, l.address?.how ?? null])).toEqual([
      ["port", "eno1", 9000, null],
      ["vlan", "v0", 9000, null],
      ["bridge", "br0", null, "fixed"],
    ]);
  });
  it.each<[string, NetworkGround, RegExp]>([
    ["a virtual switch", ground([virtual()]), /only hypervisors support it/],
    [
      "an interface that does not fit",
      ground([named("bond", "a b", [MAC], { mode: "802.3ad", hash: "layer2" })]),
      /the bond a b is invalid/,
    ],
    ["no port", ground([], null, { "network.port": null }), /port is not chosen/],
    ["no address", ground([], null, { "network.address": "" }), /the address is missing or invalid/],
    ["no segment", ground([], null, { "network.segment": null }), /the network is not chosen/],
    [
      "a gateway that is none",
      ground([], null, { "network.gateway": "gw" }),
      /the gateway is not an address/,
    ],
    [
      "a name server that is none",
      ground([], null, { "network.nameServers": ["ns"] }),
      /a DNS server is not an address/,
    ],
  ])("is not written with %s", (_, g, says) => {
    const plan = of(g);
    expect(plan.ok ? "written" : plan.problems.map((p) => p.message).join("; ")).toMatch(says);
  });
  it("is not written without a name for the host", () =>
    expect(hostPlan(ground([]), { hostName: "$(reboot)", domain: "a b" })).toMatchObject({
      ok: false,
      problems: [{}, {}],
    }));
});
