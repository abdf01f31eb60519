import { spawnSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, expect, it } from "vitest";
import { dnsmasqBoot, dnsmasqProxy, iscBoot, keaBoot, type BootPlan } from "@/core/netboot";

// What is written for the site's own DHCP server, tried by asking the real programs as firmware and boot loaders ask.

const folder = mkdtempSync(join(tmpdir(), "derrick-dhcp-"));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const tftp = join(folder, "tftp");
mkdirSync(tftp);

const PLAN: BootPlan = {
  script: "http://10.61.10.5:4370/boot.ipxe",
  ...{ tftp: "10.61.10.1", http: "http://10.61.10.1/boot/", folder: tftp },
};
interface Told {
  client: string;
  file?: string;
  next?: string;
  vendor?: string;
}

function asked(server: "dnsmasq" | "kea" | "isc", text: string): Map<string, Told> {
  const file = join(folder, `${server}.conf`);
  writeFileSync(file, text);
  const { stdout, stderr } = spawnSync(
    "unshare",
    ["-n", "-m", "sh", "tests/support/dhcp-boot-trial.sh", server, file, "tests/support/dhcp-ask.mjs"],
    { encoding: "utf8" },
  );
  const told = stdout
    .trim()
    .split("\n")
    .filter(Boolean)
    .map((line) => JSON.parse(line) as Told);
  if (told.length === 0) throw new Error(stderr);
  return new Map(told.map((t) => [t.client, t]));
}

const NETWORK = {
  dnsmasq: "no-ping\ndhcp-range=10.61.10.100,10.61.10.150,255.255.255.0,1h\n",
  isc: "ping-check false;\nsubnet 10.61.10.0 netmask 255.255.255.0 { range 10.61.10.100 10.61.10.150; }\n",
};
const kea = () =>
  JSON.stringify({
    Dhcp4: {
      "interfaces-config": { interfaces: ["served"], "dhcp-socket-type": "udp" },
      "lease-database": { type: "memfile", persist: false },
      subnet4: [{ id: 1, subnet: "10.61.10.0/24", pools: [{ pool: "10.61.10.100-10.61.10.150" }] }],
      ...keaBoot(PLAN),
    },
  });

it.each([
  ["dnsmasq", () => NETWORK.dnsmasq + dnsmasqBoot(PLAN)],
  ["kea", kea],
  ["isc", () => iscBoot(PLAN) + NETWORK.isc],
] as const)(
  "%s tells each kind of firmware the loader that it can run, and iPXE the script",
  (server, written) => {
    const told = asked(server, written());
    const file = (client: string) => told.get(client)?.file;
    expect([file("bios"), file("x64"), file("x64 as byte code"), file("arm64")]).toEqual([
      ...["undionly.kpxe", "snponly.efi", "snponly.efi", "ipxe-arm64.efi"],
    ]);
    for (const client of ["bios", "x64", "arm64"]) expect(told.get(client)?.next).toBe(PLAN.tftp);
    expect(told.get("x64 over HTTP")).toMatchObject({
      file: "http://10.61.10.1/boot/snponly.efi",
      vendor: "HTTPClient",
    });
    expect([file("iPXE under BIOS"), file("iPXE under UEFI")]).toEqual([PLAN.script, PLAN.script]);
    // Whoever does not start over the network is given an address and nothing to start.
    expect(file("installer")).toBe("");
  },
);

it("without a web server no firmware is told to boot over HTTP", () => {
  for (const text of [
    dnsmasqBoot({ ...PLAN, http: null }),
    iscBoot({ ...PLAN, http: null }),
    JSON.stringify(keaBoot({ ...PLAN, http: null })),
  ])
    expect(text).not.toMatch(/HTTPClient|boot\/ipxe/);
});

it("dnsmasq takes the lines for a second server, which gives out no address", () => {
  const text = dnsmasqProxy(PLAN, ["10.61.10.0"]);
  const file = join(folder, "proxy.conf");
  writeFileSync(file, text);
  const { status, stderr } = spawnSync("dnsmasq", ["--test", "-C", file], { encoding: "utf8" });
  expect([status, stderr.trim()]).toEqual([0, "dnsmasq: syntax check OK."]);
  expect(text).toContain("dhcp-range=10.61.10.0,proxy\n");
  expect(text).toContain('pxe-service=tag:!ipxe,X86-64_EFI,"Network",snponly.efi\n');
  expect(text).not.toMatch(/dhcp-range=[^\n]*,\d+\.\d+\.\d+\.\d+,/);
});
