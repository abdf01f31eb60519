import { execFileSync, spawnSync } from "node:child_process";
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, describe, expect, it } from "vitest";
import { layouts, sameOnAll } from "../identity";
import { REPORTS } from "../work";
import { addSeconds } from "../units";
import {
  answerTo,
  atOnceFigure,
  armingState,
  codeWords,
  armingSchema,
  fileClosed,
  firstBootCommands,
  firstBootScript,
  grubCode,
  grubFirst,
  grubInstall,
  grubLocal,
  grubWait,
  heardAt,
  ipxeCode,
  ipxeFirst,
  ipxeInstall,
  ipxeLocal,
  ipxeMedium,
  isCode,
  isSerial,
  kernelWords,
  lastTurnSeconds,
  neededOf,
  newCode,
  outOfTime,
  reportClosed,
  roundsSeconds,
  waitsFor,
  type BootEvent,
  type LoggedBoot,
} from ".";

const AT = "2026-11-20T08:00:00.000Z";
const arming = armingSchema.parse({
  schemaVersion: 1,
  machine: { id: "m1", name: "wrk-tel1", serial: "OST-44 17/B", macs: ["02:61:0a:00:00:14"] },
  build: { id: "b1", number: "B-0044", revision: "A", version: 7 },
  image: { id: "i1", name: "Millrace 12", fileName: "millrace-12.iso", sizeBytes: 9 },
  ...{ kernel: "/install/kernel", initrd: ["/install/initrd.gz"], words: [], answers: ["wrk-tel1.preseed"] },
  ...{ digest: "d", erases: [], timeZone: "UTC", by: "J. Pell", at: AT, until: addSeconds(AT, 7200) },
  ...{ likelySeconds: 900, lateSeconds: 2400 },
});
const after = (seconds: number): string => addSeconds(AT, seconds);
const log = (...events: [number, BootEvent][]): LoggedBoot[] =>
  events.map(([s, event]) => ({ at: after(s), event }));
const caller = {
  mac: "02:61:0A:00:00:14",
  serial: "ost-44 17/b",
  uuid: "",
  maker: "",
  model: "",
  platform: "",
  address: "",
};
const asked: BootEvent = {
  kind: "asked",
  caller,
  given: true,
  words: "",
  waits: false,
  second: false,
  wrongCode: false,
};
const fetched = (what: string, whole = true): BootEvent => ({
  kind: "fetched",
  what,
  bytes: 9,
  whole,
  of: 0,
});
const told = (stage: "started" | "installed" | "first boot" | "done" | "failed", words = ""): BootEvent => ({
  kind: "reported",
  stage,
  words,
});
const CHAIN: [number, BootEvent][] = [
  [10, asked],
  [12, fetched("kernel")],
  [15, fetched("initrd 1")],
  [40, fetched("answers wrk-tel1.preseed")],
];
const stateAt = (seconds: number, ...events: [number, BootEvent][]) =>
  armingState(arming, log(...events), after(seconds));

describe("how many at once", () => {
  const reads = (megabytes: number) => ({ reads: { bytes: megabytes * 1e6 * 60, seconds: 60 } });
  const rates = { link: 125e6, disk: null };

  it("is link and disk divided by what one takes: 1 Gbit/s and 8 MB/s give 13, so 40 machines of 7 minutes take 28", () => {
    expect(atOnceFigure(rates, reads(8)).value).toBe(13);
    expect(roundsSeconds(40, 13, 420)).toBe(28 * 60);
    expect(atOnceFigure({ ...rates, disk: 40e6 }, reads(8)).value).toBe(5);
    expect(atOnceFigure({ link: null, disk: null }, { reads: null }).inputs.map((i) => i.source)).toEqual([
      ...["default", "default", "default"],
    ]);
    expect(atOnceFigure(rates, reads(900)).value).toBe(1);
  });

  it("keeps who asks beyond it waiting, but never one alone, one that was let in, or for one that is late", () => {
    const own = { arming: { ...arming, ...reads(60) }, state: stateAt(5) };
    const fed = { arming: own.arming, state: stateAt(20, ...CHAIN.slice(0, 2)) };
    expect(waitsFor(rates, own, [])).toBeNull();
    expect(waitsFor(rates, own, [fed])).toMatch(/1 machine is being installed/);
    expect(waitsFor({ ...rates, link: 1250e6 }, own, [fed])).toBeNull();
    expect(waitsFor(rates, { ...own, state: fed.state }, [fed])).toBeNull();
    const late = { arming, state: stateAt(3000, ...CHAIN) };
    expect(late.state.lateSince).not.toBeNull();
    const installed = { arming, state: stateAt(60, ...CHAIN, [50, told("installed")]) };
    expect(waitsFor(rates, own, [late, installed])).toBeNull();
  });

  it("tells whose time is over before their turn: three at once, 15 minutes each, armed for 20", () => {
    expect([1, 3, 4, 7].map((n) => lastTurnSeconds(n, 3, 900))).toEqual([0, 0, 900, 1800]);
    const short = { ...arming, until: after(1200) };
    const row = (name: string, seconds: number, state = stateAt(5)) => ({
      ...{ name, state },
      arming: { ...short, at: after(seconds) },
    });
    const fed = row("fed", 0, stateAt(20, ...CHAIN.slice(0, 2)));
    const open = [row("g", 7), row("b", 2), row("c", 3), row("d", 4), row("e", 5), row("f", 6), fed];
    // With the one that is fed, b and c go first, d to f a quarter of an hour later, g after half an hour.
    expect(outOfTime(open, 3, AT).map(({ name }) => name)).toEqual(["g"]);
    expect(outOfTime(open, 3, after(400)).map(({ name }) => name)).toEqual(["d", "e", "f", "g"]);
    expect(outOfTime(open, 7, after(400))).toEqual([]);
  });
});

describe("what ends a step of the run", () => {
  const heard = (seconds: number, ...events: [number, BootEvent][]) => {
    const state = stateAt(seconds, ...events);
    return REPORTS.map((t) => heardAt(arming, state, t)).map((h) => h && (h.stops ?? h.at));
  };

  it("is heard at its own time, or at that of what comes after it", () => {
    expect(heard(5)).toEqual([AT, null, null, null, null]);
    expect(heard(60, ...CHAIN)).toEqual([AT, after(10), after(40), null, null]);
    expect(heard(60, ...CHAIN, [50, told("done")])).toEqual([AT, after(10), after(40), after(50), after(50)]);
  });

  it("takes as long as the machine took, whenever a person came to the run; not where it was told of by what came later", () => {
    const took = (...events: [number, BootEvent][]) =>
      REPORTS.map((t) => heardAt(arming, stateAt(900, ...CHAIN, ...events), t)?.took ?? null);
    expect(took([700, told("installed")])).toEqual([null, null, 30, 660, null]);
    expect(took([800, told("done")])).toEqual([null, null, 30, null, null]);
  });

  it("is why the run stops, where the installation ended without it; an arming that gave nothing is none", () => {
    const failed = "wrk-tel1 reported a failed installation: no space.";
    expect(heard(60, ...CHAIN, [50, told("failed", "no space")]).slice(2)).toEqual([
      after(40),
      failed,
      failed,
    ]);
    const off = "The installation of wrk-tel1 was cancelled by M. Arkle.";
    expect(heard(60, [20, { kind: "cancelled", by: "M. Arkle" }])).toEqual([null, off, off, off, off]);
    expect(heard(8000)[0]).toBeNull();
  });
});

describe("how far a machine is", () => {
  it("goes from stage to stage, with the time of each, and has its likely end once all was read", () => {
    expect(stateAt(0)).toMatchObject({ status: "waiting", reached: {}, spentAt: null, likelyAt: null });
    expect(stateAt(20, ...CHAIN.slice(0, 2))).toMatchObject({
      status: "fetching",
      reached: { kernel: after(12) },
    });
    const all = stateAt(60, ...CHAIN);
    expect(all).toMatchObject({
      status: "installing",
      spentAt: after(40),
      likelyAt: after(940),
      lateSince: null,
    });
    expect(Object.keys(all.reached)).toEqual(["asked", "script", "kernel", "answers", "installing"]);
    expect(stateAt(1000, ...CHAIN, [900, told("installed")], [990, told("done")])).toMatchObject({
      ...{ status: "done", lateSince: null, likelyAt: null },
      reached: { "first boot": after(900), done: after(990) },
    });
    expect(neededOf(arming)).toEqual(["kernel", "initrd 1", "answers wrk-tel1.preseed"]);
  });

  it("counts no file of which a part went out only", () => {
    const state = stateAt(60, ...CHAIN.slice(0, 3), [40, fetched("answers wrk-tel1.preseed", false)]);
    expect([state.status, state.spentAt]).toEqual(["fetching", null]);
  });

  it("is not moved by what is told twice, in a wrong order, or after the end", () => {
    const done = stateAt(1000, ...CHAIN, [900, told("done")]);
    const again = stateAt(
      1000,
      ...CHAIN,
      [900, told("done")],
      [950, told("failed", "disk full")],
      [951, told("started")],
      [952, { kind: "cancelled", by: "J. Pell" }],
    );
    expect(again).toEqual(done);
    expect(
      stateAt(1000, [5, told("first boot")], ...CHAIN, [6, told("first boot")]).reached["first boot"],
    ).toBe(after(5));
  });

  it("is late while reading, and while installing, and expired when it never came", () => {
    expect(stateAt(1900, ...CHAIN.slice(0, 2)).lateSince).toBe(after(1810));
    expect(stateAt(2441, ...CHAIN)).toMatchObject({ status: "installing", lateSince: after(2440) });
    expect(stateAt(7201)).toMatchObject({ status: "expired", lateSince: null });
    expect(stateAt(7201, ...CHAIN).status).toBe("installing");
    expect(stateAt(900, ...CHAIN, [800, told("failed", "no mirror")])).toMatchObject({
      status: "failed",
      why: "no mirror",
    });
  });

  it("opens its files until all were read, with time for a second try, and takes reports after that", () => {
    expect(fileClosed(arming, stateAt(60, ...CHAIN.slice(0, 2)), after(60))).toBeNull();
    expect(fileClosed(arming, stateAt(150, ...CHAIN), after(150))).toBeNull();
    expect(fileClosed(arming, stateAt(170, ...CHAIN), after(170))).toMatch(
      /all files of the installation were loaded/,
    );
    expect(fileClosed(arming, stateAt(7300, ...CHAIN.slice(0, 1)), after(7300))).not.toBeNull();
    expect(reportClosed(stateAt(5000, ...CHAIN))).toBeNull();
    expect(reportClosed(stateAt(50, [1, { kind: "cancelled", by: "J. Pell" }]))).toMatch(
      /the arming has ended \(cancelled\)/,
    );
  });
});

describe("what a machine is given that asks", () => {
  const given = (changes: object, events: [number, BootEvent][] = [], seconds = 60) => {
    const state = stateAt(seconds, ...events);
    const answer = answerTo({ ...caller, ...changes }, "", arming, state);
    return answer.given ? "installation" : answer.words;
  };
  it("the installation, to the armed machine alone, whatever case its firmware writes", () => {
    expect(given({})).toBe("installation");
    expect(answerTo(caller, "", null, null)).toMatchObject({
      given: false,
      words: expect.stringMatching(/This machine is not armed for an installation/) as string,
    });
  });
  it.each([
    ["another MAC", { mac: "02:61:0a:00:00:15" }, /not that of the armed/],
    ["another serial", { serial: "OST-44 17/C" }, /A machine with this MAC is armed/],
    ["a serial that begins alike", { serial: "OST-44" }, /A machine with this MAC is armed/],
    ["no serial", { serial: "" }, /The firmware reports no serial number/],
    ["a placeholder", { serial: "To Be Filled By O.E.M." }, /The firmware reports no serial number/],
  ])("its own disk, with %s", (_, changes, words) => expect(given(changes)).toMatch(words));
  it("nothing until it has shown the code of its arming, where one is asked for; what was typed otherwise is told in red", () => {
    const code = newCode((below) => below - 1);
    const shown = (typed: string, ...events: [number, BootEvent][]) =>
      answerTo(caller, typed, { ...arming, code }, stateAt(60, ...events));
    expect([code, codeWords(code)]).toEqual(["xxxxxxxxxxxx", "xxxx xxxx xxxx"]);
    expect(shown("")).toMatchObject({ given: false, asksCode: true, wrong: false });
    expect(shown("xxxx xxxx xxx")).toMatchObject({ given: false, asksCode: true, wrong: true });
    expect(shown("XXXX-xxxx xxxx")).toEqual({ given: true });
    // Whoever has the code all the same gets nothing of what was given already.
    expect(shown(code, [10, asked])).toMatchObject({ given: false, second: true });
    const other: BootEvent = { ...asked, given: false, wrongCode: true } as BootEvent;
    expect(stateAt(60, [1, other], [2, other]).wrongCode).toMatchObject({ times: 2, at: after(2) });
    expect(isCode("", "")).toBe(false);
  });
  it("a code of letters that every keyboard has in the same place, but Dvorak's", () => {
    const letters = Array.from({ length: 17 }, (_, i) => newCode(() => i)[0]!);
    const same = sameOnAll(
      [...layouts()].flatMap(([name, layout]) => (name === "us-dvorak" ? [] : [layout])),
    );
    expect(letters.filter((letter) => !same.has(letter))).toEqual([]);
  });
  it("its own disk once it has read all, was called off, has failed, or comes too late", () => {
    expect(given({}, CHAIN)).toMatch(/Already installed/);
    expect(given({}, [[1, { kind: "cancelled", by: "J. Pell" }]])).toMatch(
      /The installation of this machine was cancelled/,
    );
    expect(given({}, [...CHAIN, [50, told("failed")]])).toMatch(/The installation of this machine failed/);
    expect(given({}, [], 7300)).toMatch(/has expired/);
    expect(given({}, [...CHAIN, [50, told("done")]], 9000)).toMatch(/Already installed/);
  });
  it("its own disk when it was given before: of two that claim to be one machine only a person can tell which", () => {
    const secondOf = (...events: [number, BootEvent][]) =>
      answerTo(caller, "", arming, stateAt(60, ...events));
    expect(secondOf([10, asked])).toMatchObject({ given: false, second: true });
    // A script that broke off on its way was not given.
    expect(secondOf([10, asked], [11, { ...fetched("script", false), bytes: 0 } as BootEvent])).toEqual({
      given: true,
    });
    expect(secondOf(...CHAIN)).toMatchObject({ given: false, second: true });
    expect(secondOf(...CHAIN, [50, told("installed")])).toMatchObject({ given: false, second: false });
  });

  it("is read by parts as well as whole", () => {
    const part = (bytes: number): BootEvent => ({
      kind: "fetched",
      what: "kernel",
      bytes,
      whole: false,
      of: 100,
    });
    expect(stateAt(60, [10, asked], [11, part(60)]).reached.kernel).toBeUndefined();
    expect(stateAt(60, [10, asked], [11, part(60)], [12, part(40)]).reached.kernel).toBe(after(12));
  });

  it("placeholders of makers are no serials", () => {
    for (const text of [
      "",
      "0",
      "000000",
      "None",
      "N/A",
      "Default string",
      "System Serial Number",
      "Not Specified",
    ])
      expect(isSerial(text), text).toBe(false);
    for (const text of ["OST-1", "0A", "12345"]) expect(isSerial(text), text).toBe(true);
  });
});

describe("scripts and words", () => {
  const at = {
    answers: "http://10.61.10.5:4370/t/abc/answers/",
    tree: "http://10.61.10.5:4370/t/abc/tree/",
    image: "http://10.61.10.5:4370/t/abc/image.iso",
  };
  const address = {
    ...{ how: "fixed" as const, address: "10.61.10.30", length: 24, gateway: "10.61.10.1" },
    nameServers: ["10.61.10.2", "10.61.10.3"],
  };
  const port = { kind: "port" as const, name: "eno1", mac: "02:61:0a:00:00:14", mtu: null, address };
  const host = { mac: "02:61:0A:00:00:14", hostName: "wrk-tel1", domain: "marrowby.example", link: null };
  const words = (format: Parameters<typeof kernelWords>[0], own: string[] = []) =>
    kernelWords(format, ["wrk-tel1.preseed"], at, host, own)?.join(" ");

  it("the kernel is told where its answers are in the words of each installer, and what it asks before", () => {
    expect(words("kickstart", ["console=ttyS0,115200n8"])).toBe(
      "inst.ks=http://10.61.10.5:4370/t/abc/answers/wrk-tel1.preseed inst.stage2=http://10.61.10.5:4370/t/abc/tree/ ip=dhcp BOOTIF=01-02-61-0a-00-00-14 console=ttyS0,115200n8",
    );
    expect(words("preseed")).toMatch(
      /^auto=true priority=critical url=\S+preseed interface=auto BOOTIF=\S+ hostname=wrk-tel1 domain=/,
    );
    expect(words("cloud-config")).toMatch(
      /ds=nocloud-net;s=http:\S+\/answers\/ cloud-config-url=\/dev\/null/,
    );
    expect(words("script", ["seed={answers.url}", "from={tree.url}"])).toBe(
      `seed=${at.answers}wrk-tel1.preseed from=${at.tree}`,
    );
    expect([words("none"), words("bsd script")]).toEqual([undefined, undefined]);
  });

  it("a fixed address is told to a kernel whose installer asks for it before it reads its file", () => {
    const netcfg = (link: Parameters<typeof kernelWords>[3]["link"]) =>
      kernelWords("preseed", ["a"], at, { ...host, link }, [])?.filter((w) => w.startsWith("netcfg/"));
    expect(netcfg(port)).toEqual([
      "netcfg/disable_autoconfig=true",
      "netcfg/get_ipaddress=10.61.10.30",
      "netcfg/get_netmask=255.255.255.0",
      "netcfg/get_gateway=10.61.10.1",
      "netcfg/get_nameservers=10.61.10.2 10.61.10.3",
      "netcfg/confirm_static=true",
    ]);
    const v6 = { ...address, address: "2001:db8::30", length: 64, gateway: null, nameServers: [] };
    expect(netcfg({ ...port, address: v6 })).toEqual([
      ...["netcfg/disable_autoconfig=true", "netcfg/get_ipaddress=2001:db8::30/64"],
      ...["netcfg/no_default_route=true", "netcfg/confirm_static=true"],
    ]);
    // By DHCP, on another port, and made on a port: nothing.
    for (const link of [
      { ...port, address: { how: "dhcp" as const } },
      { ...port, mac: "02:61:0a:00:00:99" },
      { kind: "vlan" as const, name: "mgmt", parent: "eno1", vlan: 5, mtu: null, address },
    ])
      expect(netcfg(link)).toEqual([]);
    const words = ["netcfg/get_nameservers=10.61.10.2 10.61.10.3", "quiet"];
    const both = { kernel: "http://a/k", initrd: ["http://a/i"], words };
    expect(ipxeInstall(both, "x")).toContain(' netcfg/get_nameservers="10.61.10.2 10.61.10.3" quiet ||');
    // GRUB puts the quotes of the kernel around a word with a blank by itself.
    expect(grubInstall(both, "x")).toContain(" 'netcfg/get_nameservers=10.61.10.2 10.61.10.3' quiet; then");
  });

  const files = {
    kernel: "http://a/k",
    initrd: ["http://a/i1", "http://a/i2"],
    words: ["ds=nocloud-net;s=http://a/"],
  };
  it("iPXE's begin and end as it wants, name each initial file system twice, and lead to the disk from every failure", () => {
    for (const script of [
      ipxeFirst(),
      ipxeCode("Type it."),
      ipxeMedium("http://a", "bcdfbcdfbcdf"),
      ipxeLocal("Grüße $(x)\n`y`; ${mac}"),
      ipxeInstall(files, "a\nreboot"),
    ]) {
      expect(script.startsWith("#!ipxe\n")).toBe(true);
      expect(script).toMatch(/\nexit 1\n$/);
      expect(script).not.toMatch(/\r|^reboot/m);
      const labels = new Set(script.match(/^:\w+$/gm)?.map((l) => l.slice(1)));
      for (const [, label] of script.matchAll(/goto (\w+)/g)) expect(labels).toContain(label);
    }
    const script = ipxeInstall(files, "x");
    expect(script).toContain(
      "\nkernel http://a/k initrd=initrd1 initrd=initrd2 ds=nocloud-net;s=http://a/ || goto failed\n",
    );
    expect(script).toContain("\ninitrd --name initrd2 http://a/i2 || goto failed\n");
    expect(ipxeLocal("Grüße $(x)\n`y`; ${mac}")).toContain("\necho Derrick: Grue (x) y , mac\n");
    // No colon before the first question mark's end, and only what text is in the form for URLs.
    expect(ipxeFirst()).toContain("script?mac=${netX/mac:hexhyp}&serial=${serial:uristring}&uuid=${uuid}&");
  });

  it("GRUB's keep a semicolon inside its word, try again, and are read by GRUB's own program", () => {
    const text = grubInstall({ ...files, kernel: "http://a:4370/k", initrd: ["http://a:4370/i"] }, "x");
    expect(text).toContain("if linux '(http,a:4370)/k' 'ds=nocloud-net;s=http://a/'; then\n");
    expect(text).toContain("if initrd '(http,a:4370)/i'; then\n");
    const first = grubFirst("http://10.61.10.1");
    expect(first).toContain(
      "(http,10.61.10.1)/grub.cfg?mac=${net_default_mac}&serial=${serial}&platform=efi",
    );
    const again = "http://10.61.10.1/grub.cfg?mac=02:61&serial=A";
    expect(grubWait("others first", again)).toContain(
      'configfile "(http,10.61.10.1)/grub.cfg?mac=02:61&serial=A"',
    );
    for (const script of [
      text,
      first,
      grubCode("it's", again),
      grubWait("it's; $(x)", again),
      grubLocal("it's `y` & ${z}"),
    ])
      expect(spawnSync("grub-script-check", [], { input: script, encoding: "utf8" })).toMatchObject({
        ...{ status: 0, stderr: "" },
      });
  });
});

describe("the first-boot script", () => {
  const folder = mkdtempSync(join(tmpdir(), "derrick-first-"));
  afterAll(() => rmSync(folder, { recursive: true }));
  const TOKEN = "aB3_-xyzAB3_-xyzAB3_-xyzAB3_-xyz";
  const script = (actions: string[], ready: string[], secrets: string[] = []) =>
    firstBootScript({ report: `http://a/t/${TOKEN}/report/`, actions, ready, secrets }).replace(
      "sleep 5",
      "sleep 0",
    );
  const UNIT = "etc/systemd/system/derrick-first-boot.service";
  const stub = (name: string, text: string) =>
    writeFileSync(join(folder, name), `#!/bin/sh\n${text}\n`, { mode: 0o755 });
  const [program, tree] = [join(folder, "first-boot"), join(folder, "tree")];
  /** Runs it in a tree of its own, as an installed system has it. */
  const run = (text: string) => {
    writeFileSync(program, text);
    for (const dir of ["etc/systemd/system", "var/log"]) mkdirSync(join(tree, dir), { recursive: true });
    writeFileSync(join(tree, UNIT), "[Unit]\n");
    stub("curl", `for last; do :; done\necho "$\{last##*/} $*" >> "${folder}/told"`);
    stub("systemctl", `echo "$*" >> "${folder}/managed"`);
    return spawnSync("env", [`PATH=${folder}:/usr/bin:/bin`, `ROOT=${tree}`, "sh", program]).status;
  };
  const lines = (name: string): string[] => readFileSync(join(folder, name), "utf8").trim().split("\n");
  const log = (): string => readFileSync(join(tree, "var/log/derrick-first-boot.log"), "utf8");

  it("is sound to shellcheck, waits by asking, does each action once, and tells what became of it", () => {
    const text = script(
      [`echo 'a; b' >> ${folder}/acted`, "true"],
      [`test -e ${folder}/ready || ! : > ${folder}/ready`],
    );
    writeFileSync(join(folder, "checked.sh"), text);
    expect(
      execFileSync("shellcheck", ["--severity=warning", join(folder, "checked.sh")], { encoding: "utf8" }),
    ).toBe("");
    expect(run(text)).toBe(0);
    expect(lines("acted")).toEqual(["a; b"]);
    expect(lines("told").map((l) => l.split(" ")[0])).toEqual(["first-boot", "done"]);
    expect(log()).toMatch(/ready: readiness 1[^]*begins: 1[^]*done: 2/);
  });

  it("goes on after a cut where it was, and does nothing twice", () => {
    const text = script(
      [`echo once >> ${folder}/cut`, `test -e ${folder}/again || kill -9 $PPID`, "true"],
      [],
    );
    expect(run(text)).toBeNull();
    expect(existsSync(program)).toBe(true);
    writeFileSync(join(folder, "again"), "");
    expect(run(text)).toBe(0);
    expect(lines("cut")).toEqual(["once"]);
    expect(log()).toContain("done before: 1");
  });

  it.each([
    ["its end", ["true"], [], 0],
    ["an action that fails", ["true", "exit 3", "echo never"], [], 1],
    ["a system that never became ready", [], ["false"], 1],
  ])(
    "removes itself, its unit and its marks after %s, and is never started again",
    (_, actions, ready, status) => {
      rmSync(join(folder, "managed"), { force: true });
      expect(run(script(actions, ready))).toBe(status);
      expect([program, join(tree, UNIT), join(tree, "var/lib/derrick")].filter(existsSync)).toEqual([]);
      expect(lines("managed")[0]).toBe("disable derrick-first-boot.service");
      if (status === 1)
        expect(lines("told").at(-1)).toMatch(
          /^failed .*(action 2 of the first start failed|not ready: readiness 1)/,
        );
      expect(log()).not.toContain("never");
    },
  );

  it("leaves no secret in an installed tree: neither where it was given one, nor where an installer wrote it down", () => {
    const secrets = ["$6$salt$hash/of.one", 'it\'s a "key"', "plain-token"];
    const shellWordOf = (text: string) => `'${text.replaceAll("'", `'\\''`)}'`;
    const join_ = `join --with ${shellWordOf(secrets[1]!)}`;
    // What installers leave: a command inside another's quotes, JSON, a copy of the file, the kernel's line.
    const left: Record<string, string> = {
      "var/log/installer/syslog": `kernel: url=http://a/t/${TOKEN}/answers/x\nkeeps this line\npreseed: sh -c ${shellWordOf(`set -e; sh -c ${shellWordOf(join_)}`)}\n`,
      "var/log/installer/cdebconf/questions.dat": `Value: in-target chpasswd -e root:${secrets[0]}\n`,
      "var/lib/cloud/instances/a/user-data.txt": `runcmd: [${JSON.stringify(join_)}]\n`,
      "root/original-ks.cfg": `rootpw --iscrypted ${secrets[0]}\nlang en_GB.UTF-8\n`,
      "root/derrick-finish.log": `+ join ${secrets[2]}\n`,
      "autoinstall.yaml": `passwd: ${secrets[0]}\n`,
    };
    for (const [path, text] of Object.entries(left)) {
      mkdirSync(join(tree, path, ".."), { recursive: true });
      writeFileSync(join(tree, path), text);
    }
    // Where a secret is at home.
    writeFileSync(join(tree, "etc/shadow"), `root:${secrets[0]}:20000:0:99999:7:::\n`);
    const joins = `echo ${shellWordOf(secrets[2]!)} > ${tree}/etc/joined; echo ${secrets[2]}`;
    expect(run(script([joins], [], secrets))).toBe(0);
    for (const secret of [...secrets, TOKEN, "it'\\''s"]) {
      const found = spawnSync("grep", ["-rlF", secret, tree], { encoding: "utf8" }).stdout.split("\n");
      expect(
        found.filter((f) => f !== "" && !/\/etc\/(shadow|joined)$/.test(f)),
        secret,
      ).toEqual([]);
    }
    expect(readFileSync(join(tree, "var/log/installer/syslog"), "utf8")).toBe("keeps this line\n");
    expect(readFileSync(join(tree, "root/original-ks.cfg"), "utf8")).toBe("lang en_GB.UTF-8\n");
    expect(statSync(join(tree, "var/log/derrick-first-boot.log")).mode & 0o77).toBe(0);
  });

  it("says where a secret stays that it cannot take out", () => {
    writeFileSync(join(tree, "var/log/wtmp"), `\0\0plain-token\0`);
    expect(run(script([], [], ["plain-token"]))).toBe(0);
    expect(log()).toContain(`a secret stays in ${tree}/var/log/wtmp`);
    rmSync(join(tree, "var/log/wtmp"));
  });

  it("is put in its place by commands that any answer file holds", () => {
    const commands = firstBootCommands("http://a/t/abc/first-boot", "http://a/t/abc/report/");
    for (const command of commands) {
      expect(command.length).toBeLessThan(401);
      expect(command).not.toMatch(/\n/);
      expect(spawnSync("sh", ["-n", "-c", command]).status).toBe(0);
    }
    // Nobody but root reads it, not even while it is fetched.
    expect(commands[0]).toMatch(/^umask 077; .* chmod 700 /);
  });
});
