import { A_KEY } from "./keys";
import { hiddenTarget, syncing } from "./boot-cards";
import { aBuild, aDrive, aSite, MAC, type BuildChanges } from "./builds";

const { requirements } = aBuild().profile!;
const asked = (iommu: "required"): BuildChanges => ({
  profile: { requirements: { ...requirements, iommu } },
});
const full = [{ part: "b1", sizeBytes: 9, kind: "ext4", label: null, mountedAt: [] }];
const agreed = (holds: string | null) => [
  { drive: "NV-0001", typed: "V-0001", holds, by: "J. Pell", at: "2026-11-20T08:00:00Z" },
];
const nameless = (id: string) => aDrive(id, { model: null });
const at = "2026-11-20T08:00:00Z";

/** Cases beside the plain ones: for each way in which a sentence can be told, one that tells it so. */
export const PHRASE_FIRING: [code: string, severity: string, says: RegExp, changes: BuildChanges][] = [
  [
    "machine.not-read",
    "caution",
    /Cairn Hypervisor 9 requires cores \(a number\)/,
    { facts: { processors: { architecture: "x86_64", virtualisation: true } } },
  ],
  [
    "image.no-profile",
    "stop",
    /neither file name nor contents identify it/,
    { profile: null, image: { profile: "not known yet" } },
  ],
  ["storage.hidden", "stop", /its controller presents drives only as part of an array/, hiddenTarget],
  ["boot.cards-syncing", "caution", /expected for now; its end is unknown/, syncing(38)],
  ["machine.not-read", "caution", /Cairn Hypervisor 9 requires IOMMU \(required\)/, asked("required")],
  [
    "image.not-verified",
    "caution",
    /the computed one uses another algorithm/,
    {
      image: { computed: { checksum: { algorithm: "sha512", value: "b".repeat(128) }, at, by: "J. Pell" } },
    },
  ],
  [
    "image.line-over",
    "caution",
    /got its last updates on an unknown day/,
    { profile: { support: { channel: "out of support", ends: null } } },
  ],
  ["boot.inside", "stop", /As an optical disc/, { sheet: { "image.way": "disc" }, ...deadInside() }],
  [
    "boot.mode-switch",
    "caution",
    /Cairn Hypervisor 9 will no longer boot/,
    {
      facts: { system: { osId: "cairn", osName: "Cairn Hypervisor 9", osVersion: "9.0" } },
      sheet: { "boot.mode": "legacy" },
    },
  ],
  ...(["ext4 before", null] as const).flatMap((holds): typeof PHRASE_FIRING => {
    const sheet = { "storage.erase": agreed(holds) };
    const why = holds
      ? /is no longer valid: it covered: ext4 before/
      : /is no longer valid: its scope was not recorded/;
    return [
      ["storage.holds-data", "stop", why, { drives: [aDrive("NV-0001", { contents: full })], sheet }],
      ["storage.not-read", "stop", why, { drives: [aDrive("NV-0001", { contents: null })], sheet }],
    ];
  }),
  [
    "storage.alike",
    "caution",
    /show as "no model /,
    { drives: [nameless("NV-0001"), nameless("NV-0002")], sheet: { "storage.leaveAlone": ["NV-0002"] } },
  ],
  [
    "network.no-port",
    "caution",
    /the chosen port 02:00:00:00:00:01 is not a port of the machine/,
    { sheet: { "network.port": "02:00:00:00:00:01" } },
  ],
  [
    "network.no-link",
    "caution",
    /eno1 had no link at the last import; ports with a link: wlan0/,
    { portLink: "down", wirelessToo: true },
  ],
  [
    "network.not-reserved",
    "caution",
    /reserved for it: 10\.61\.10\.77/,
    {
      sheet: { "network.school": "reserved" },
      site: {
        segments: aSite.segments.map((s) => ({
          ...s,
          reservations: [{ mac: MAC, address: "10.61.10.77", name: "wrk-hv1" }],
        })),
      },
    },
  ],
  ["network.gateway", "stop", /not an IP address/, { sheet: { "network.gateway": "router" } }],
  [
    "answers.domain",
    "caution",
    /and Cairn Hypervisor recommends one/,
    { sheet: { "answers.domain": "" }, profile: { hostName: { domain: "wanted" } } },
  ],
  [
    "answers.domain",
    "stop",
    /the part "-marrowby" is not valid/,
    { sheet: { "answers.domain": "-marrowby.example" } },
  ],
  ["answers.keyboard", "caution", /none is chosen/, { sheet: { "answers.keyboard": "" } }],
  ["answers.time-zone", "stop", /not set/, { sheet: { "answers.timeZone": "" } }],
  ["answers.keyboard-moves", "caution", /z becomes y/, { sheet: { "answers.keyboard": "de" } }],
  [
    "answers.key",
    "stop",
    /the key is truncated or altered/,
    { sheet: { "answers.accounts": [accountWith({ keys: [{ line: "ssh-ed25519 AAAA", until: "" }] })] } },
  ],
  [
    "answers.key",
    "caution",
    /and the sheet has no public key/,
    { sheet: { "answers.accounts": [accountWith({ logIn: "key" })] } },
  ],
  [
    "answers.key",
    "caution",
    /root: the end date 1 Jan 2020 of a key has passed/,
    { sheet: { "answers.accounts": [accountWith({ keys: [{ line: A_KEY, until: "2020-01-01" }] })] } },
  ],
  [
    "answers.same-password",
    "caution",
    /root uses the same password as the management controller/,
    {
      secrets: [
        { opens: "root", same: ["the management controller"] },
        { opens: "jpell", same: [] },
      ],
    },
  ],
];

/** The super-user with other log-ins than a password. */
function accountWith(changes: object) {
  return { name: "root", role: "super-user", logIn: "password", keys: [], ...changes };
}

/** A file that no firmware starts from. */
function deadInside(): BuildChanges {
  const { inside } = aBuild().image!;
  const dead = { ...inside!.found.verdict.optical, x64: { answer: "does not" as const, reason: "no entry" } };
  const verdict = { ...inside!.found.verdict, optical: dead, stick: dead };
  return { image: { inside: { ...inside!, found: { ...inside!.found, verdict } } } };
}
