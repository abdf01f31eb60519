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
    /asks for cores \(a number\)/,
    { facts: { processors: { architecture: "x86_64", virtualisation: true } } },
  ],
  [
    "image.no-profile",
    "stop",
    /neither its name nor its inside tells it/,
    { profile: null, image: { profile: "not known yet" } },
  ],
  ["storage.hidden", "stop", /shows drives only as part of a set/, hiddenTarget],
  ["boot.cards-syncing", "caution", /expected for now; when it ends is not known/, syncing(38)],
  ["machine.not-read", "caution", /asks for IOMMU \(required\)/, asked("required")],
  [
    "image.not-verified",
    "caution",
    /the computed one is of another algorithm/,
    {
      image: { computed: { checksum: { algorithm: "sha512", value: "b".repeat(128) }, at, by: "J. Pell" } },
    },
  ],
  [
    "image.line-over",
    "caution",
    /had its last corrections on an unknown day/,
    { profile: { support: { channel: "out of support", ends: null } } },
  ],
  [
    "boot.inside",
    "stop",
    /as a disc, in UEFI mode, this image does not start/,
    { sheet: { "image.way": "disc" }, ...deadInside() },
  ],
  [
    "boot.mode-switch",
    "caution",
    /Cairn Hypervisor 9 will not start any more/,
    {
      facts: { system: { osId: "cairn", osName: "Cairn Hypervisor 9", osVersion: "9.0" } },
      sheet: { "boot.mode": "legacy" },
    },
  ],
  ...(["ext4 before", null] as const).flatMap((holds): typeof PHRASE_FIRING => {
    const sheet = { "storage.erase": agreed(holds) };
    const why = holds ? /has ended: it was given for: ext4 before/ : /has ended: it does not say for what/;
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
    /the chosen port 02:00:00:00:00:01 is not among/,
    { sheet: { "network.port": "02:00:00:00:00:01" } },
  ],
  ["network.no-link", "caution", /seen on: wlan0/, { portLink: "down", wirelessToo: true }],
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
  ["network.gateway", "stop", /it is not an address/, { sheet: { "network.gateway": "router" } }],
  [
    "answers.domain",
    "caution",
    /wants one/,
    { sheet: { "answers.domain": "" }, profile: { hostName: { domain: "wanted" } } },
  ],
  ["answers.domain", "stop", /Of the domain: ./, { sheet: { "answers.domain": "-marrowby.example" } }],
  ["answers.keyboard", "caution", /none is chosen/, { sheet: { "answers.keyboard": "" } }],
  ["answers.time-zone", "stop", /none is given/, { sheet: { "answers.timeZone": "" } }],
  ["answers.keyboard-moves", "caution", /z becomes y/, { sheet: { "answers.keyboard": "de" } }],
  [
    "answers.key",
    "stop",
    /root: a key cannot be read: the key is cut off/,
    { sheet: { "answers.accounts": [accountWith({ keys: [{ line: "ssh-ed25519 AAAA", until: "" }] })] } },
  ],
  [
    "answers.key",
    "caution",
    /root: it logs in by key, and no public key/,
    { sheet: { "answers.accounts": [accountWith({ logIn: "key" })] } },
  ],
  [
    "answers.key",
    "caution",
    /root: a key was to go on 2020-01-01/,
    { sheet: { "answers.accounts": [accountWith({ keys: [{ line: A_KEY, until: "2020-01-01" }] })] } },
  ],
  [
    "answers.same-password",
    "caution",
    /The password of root is also that of the management controller/,
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
