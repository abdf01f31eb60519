import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { seeded } from "../../../../tests/support/random";
import { NETWORK_READERS, readNetworkText } from "..";

const FILES = "tests/fixtures/network/files/";
const read = (text: string) => {
  const got = readNetworkText(text);
  if (!got.ok) return { format: got.problems[0]!.message, rows: [], told: [] };
  const { format, rows, problems } = got.value;
  const line = (r: object): string =>
    Object.entries(r)
      .filter(([k]) => k !== "line" && k !== "kind")
      .map(([, v]) => v)
      .join(" ");
  return {
    format,
    rows: rows.map((r) => `${r.line} ${r.kind} ${line(r)}`.trim()),
    told: problems.map((p) => `${p.line}: ${p.message}`),
  };
};

describe("files that people have, each as its own program takes it", () => {
  it.each<[file: string, format: string, rows: string[], told: RegExp[]]>([
    [
      "dnsmasq.conf",
      "dnsmasq configuration",
      [
        ...["3 range 10.61.10.100 10.61.10.179", "5 reservation 02:61:0a:00:00:09 10.61.10.9 strip"],
        ...[
          "6 reservation 02:61:0a:00:00:0b 10.61.10.11 printer",
          "9 host 10.61.10.13 files.marrowby.example",
        ],
      ],
      [/the reservation has no MAC/, /^8: no address is reserved/],
    ],
    [
      "dnsmasq.leases",
      "dnsmasq leases",
      ["1 seen 10.61.10.121 02:61:0a:00:00:21", "2 reservation 02:61:0a:00:00:22 10.61.10.22"],
      [/^3: a lease is/],
    ],
    [
      "dhcpd.conf",
      "dhcpd configuration or leases",
      [
        ...["4 range 10.61.10.100 10.61.10.179", "6 reservation 02:61:0a:00:00:09 10.61.10.9 strip"],
        ...[
          "8 reservation 02:61:0a:00:00:0b 10.61.10.11 door",
          "8 reservation 02:61:0a:00:00:0b 10.61.10.12 door",
        ],
      ],
      [/the host has no MAC or no valid fixed-address/],
    ],
    [
      "dhcpd.leases",
      "dhcpd configuration or leases",
      ["8 seen 10.61.10.121 02:61:0a:00:00:31"],
      [/the lease has no MAC or no address/],
    ],
    [
      "kea.conf",
      "Kea configuration",
      ["8 range 10.61.10.100 10.61.10.179", "10 reservation 02:61:0a:00:00:09 10.61.10.9 strip"],
      [/^11: the reservation has no MAC/],
    ],
    [
      "hosts",
      "hosts file",
      ["3 host 10.61.10.21 wrk-hv1.marrowby.example", "6 host fd61:7a1e::21 wrk-hv1"],
      [/^4: "10.61.10.300" is not an address/, /^5: "wrk-hv2" is not an address/],
    ],
    [
      "zone",
      "zone file",
      [
        ...["7 host 10.61.10.2 ns1.marrowby.example", "8 host 10.61.10.21 wrk-hv1.marrowby.example"],
        ...["9 host fd61:7a1e::21 wrk-hv1.marrowby.example", "11 host 10.61.10.40 elsewhere.example"],
      ],
      [],
    ],
    [
      "ip-neigh",
      "table of neighbours",
      ["1 seen 10.61.10.1 02:61:0a:00:00:01", "3 seen fe80::61:aff:fe00:1 02:61:0a:00:00:01"],
      [],
    ],
    ["arp", "table of neighbours", ["2 seen 10.61.10.1 02:61:0a:00:00:01"], [/not a line of such a table/]],
    ["lldp.json", "LLDP neighbours", ["4 cable eno1 wrk-sw1 3 10.61.10.4"], []],
    [
      "addresses.csv",
      "spreadsheet",
      ["2 reservation 02:61:0a:00:00:09 10.61.10.9 strip; rear", "3 host 10.61.10.40 wrk-tm1"],
      [
        /^4: neither a MAC nor a name/,
        /^5: "10.61.10.1" is an address, in the column of names/,
        /is not a MAC/,
      ],
    ],
  ])("%s is a %s", (file, format, rows, told) => {
    const got = read(readFileSync(FILES + file, "utf8"));
    expect([got.format, got.rows]).toEqual([format, rows]);
    expect(got.told).toEqual(told.map((t) => expect.stringMatching(t)));
  });

  it.each([
    ["dnsmasq", "dhcp-host=02:61:0a:00:00:09,10.61.10.9,[fd61:7a1e::9],strip", "1"],
    [
      "Kea",
      `{"Dhcp6": {"subnet6": [{"reservations": [
        {"hw-address": "02:61:0a:00:00:09", "ip-addresses": ["fd61:7a1e::9"], "hostname": "strip"}]}]}}`,
      "2",
    ],
    [
      "dhcpd",
      `subnet6 fd61:7a1e::/64 {
        host strip { hardware ethernet 02:61:0a:00:00:09; fixed-address6 fd61:7a1e::9; } }`,
      "2",
    ],
  ])("an IPv6 address that %s reserves is taken", (_, text, line) => {
    expect(read(text).rows).toContain(`${line} reservation 02:61:0a:00:00:09 fd61:7a1e::9 strip`);
    expect(read(text).told).toEqual([]);
  });

  it("every reader has a file above", () => {
    const formats = NETWORK_READERS.map((r) => r.format);
    const files = [
      "lldp.json",
      "kea.conf",
      "dhcpd.conf",
      "dnsmasq.conf",
      "dnsmasq.leases",
      "zone",
      "arp",
      "addresses.csv",
      "hosts",
    ];
    expect(files.map((f) => read(readFileSync(FILES + f, "utf8")).format)).toEqual(formats);
  });

  it("what is none of them is told so, with what would be", () =>
    expect(read("Dear all,\nthe printer has moved.").format).toMatch(/LLDP neighbours/));
});

describe("bad input", () => {
  it("one wrong line among thousands is named, and all others are kept", () => {
    const lines = Array.from(
      { length: 5000 },
      (_, i) => `10.61.${Math.floor(i / 250)}.${(i % 250) + 1} host-${i}`,
    );
    lines[3210] = "10.61.1 host-3210";
    const got = read(lines.join("\n"));
    expect([got.rows.length, got.told]).toEqual([4999, ['3211: "10.61.1" is not an address']]);
  });
  it("a line without an end is told and left out", () => {
    const got = read(`10.61.10.1 a\n${"x".repeat(1e6)}\n10.61.10.2 b`);
    expect([got.rows.length, got.told]).toEqual([2, ["2: the line is too long for this format"]]);
  });
  it("no text makes a reader throw, and whatever is given is an address and a MAC", () => {
    const random = seeded(7);
    const files = [
      "dnsmasq.conf",
      "dnsmasq.leases",
      "dhcpd.conf",
      "kea.conf",
      "hosts",
      "zone",
      "ip-neigh",
      "lldp.json",
      "addresses.csv",
    ];
    for (const file of files) {
      const text = readFileSync(FILES + file, "utf8");
      for (let i = 0; i < 150; i += 1) {
        const at = Math.floor(random() * text.length);
        const junk = ["{", "}", '"', "\0", "\n", "//", "/*", ",", "__proto__", "9".repeat(40)][
          Math.floor(random() * 10)
        ]!;
        const cut =
          random() < 0.3
            ? text.slice(0, at)
            : text.slice(0, at) + junk + text.slice(at + Math.floor(random() * 9));
        for (const reader of NETWORK_READERS)
          for (const row of reader.read(cut).rows) {
            expect(row.line).toBeGreaterThan(0);
            if ("mac" in row) expect(row.mac).toMatch(/^([\da-f]{2}:){5}[\da-f]{2}$/);
          }
      }
    }
  });
  it.each([
    ["comments that do not end", `{"Dhcp4": ${"/*".repeat(400_000)}`],
    ["quotes that do not end", `{"Dhcp4": ${'\\"'.repeat(400_000)}`],
    ["blank lines", `${"\n".repeat(400_000)}host x {`],
    ["brackets", `host x {\n${"{\n".repeat(100_000)}`],
    ["leases", "lease 10.0.0.1 {\n hardware ethernet 02:00:00:00:00:01;\n}\n".repeat(15_000)],
  ])("%s are read in one walk", (_, text) => {
    // What grows with the square of such a text takes minutes, and this test has seconds.
    expect(readNetworkText(text)).toHaveProperty("ok");
  });
});

describe("a text whose last line has no end", () => {
  const lines = "10.61.10.20 wrk-hv1\n10.61.10.1";
  it.each([
    ["hosts", `${lines}40 wrk-tm1`, 2],
    ["hosts with an end", `${lines}40 wrk-tm1\n`, null],
    ["dnsmasq", "dhcp-range=10.61.10.100,10.61.10.1", 1],
    ["neighbours", "10.61.10.1 dev eno1 lladdr 02:61:0a:00:00:14 REACHABLE", 1],
    ["Windows ends of lines", "10.61.10.20 wrk-hv1\r\n10.61.10.1 wrk-x\r\n", null],
  ])("%s says which line may be cut off", (_, text, openLine) => {
    expect(readNetworkText(text)).toMatchObject({ ok: true, value: { openLine } });
  });
});
