import { term, terms } from "@/core/text";
import type { Profile, Screen } from "@/core/image";
import { formatBinaryBytes, formatBytes, formatDuration } from "@/core/units";
import { Ruled } from "../frame/page";
import { Table, type Column } from "../frame/table";

const VERDICT = {
  supported: "text-success",
  discouraged: "text-warning",
  "not supported": "text-error",
} as const;

function Requirements({ requirements: r }: Pick<Profile, "requirements">) {
  const rows = [
    {
      name: "memory",
      least: formatBinaryBytes(r.memoryBytes.least),
      more: formatBinaryBytes(r.memoryBytes.recommended),
    },
    { name: "disk", least: formatBytes(r.diskBytes.least), more: formatBytes(r.diskBytes.recommended) },
    { name: "cores", least: String(r.cores.least), more: String(r.cores.recommended) },
  ];
  return (
    <table className="table">
      <thead>
        <tr>
          <th></th>
          <th>Minimum</th>
          <th>Recommended</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.name}>
            <th scope="row">{row.name}</th>
            <td className="value">{row.least}</td>
            <td className="value">{row.more}</td>
          </tr>
        ))}
        <tr>
          <th scope="row">processor</th>
          <td colSpan={2}>
            {r.architectures.join(", ")}
            {r.processorLevel && `, at least ${r.processorLevel}`}; virtualisation {term(r.virtualisation)};
            IOMMU {term(r.iommu)}
          </td>
        </tr>
      </tbody>
    </table>
  );
}

type Target = Profile["bootTargets"][number];
const TARGETS: Column<Target>[] = [
  { title: "", heads: true, className: "w-32", cell: (t) => term(t.kind) },
  {
    title: "",
    className: "w-32 font-semibold",
    cell: (t) => <span className={VERDICT[t.verdict]}>{t.verdict}</span>,
  },
  { title: "", cell: (t) => t.words },
];
const PRODUCTS: Column<Profile["editions"][number]>[] = [
  { title: "Product", heads: true, cell: (e) => e.name },
  { title: "Suitable for", cell: (e) => e.suits },
  { title: "Not included", cell: (e) => e.lacks },
];

/** What a profile says, to be read: requirements, boot targets, faults, jumps, screens. */
export function ProfileFacts({ profile }: { profile: Profile }) {
  return (
    <>
      <div className="grid gap-x-10 lg:grid-cols-2">
        <Ruled title="Requirements">
          <Requirements requirements={profile.requirements} />
        </Ruled>
        <Ruled
          title="Boot devices"
          note={`Secure Boot ${profile.secureBoot}; ${profile.firmware.modes.map(term).join(" and ")}`}
        >
          <Table label="Boot targets" columns={TARGETS} rows={profile.bootTargets} keyOf={(t) => t.kind} />
          {profile.consoleKeys.map((k) => (
            <p key={k.keys} className="mt-1">
              <span className="value">{k.keys}</span> <span className="quiet">{k.opens}</span>
            </p>
          ))}
        </Ruled>
      </div>
      <div className="grid gap-x-10 lg:grid-cols-2">
        <RoadsOnto profile={profile} />
        <div>
          <KnownFaults faults={profile.knownFaults} />
          <LogIns profile={profile} />
        </div>
      </div>
      {profile.editions.length > 0 && (
        <Ruled title="Products of the OS family">
          <Table columns={PRODUCTS} rows={profile.editions} keyOf={(e) => e.name} />
        </Ruled>
      )}
      <Ruled title="Screens, in order">
        <Screens screens={profile.screens} />
      </Ruled>
      {profile.firstBoot.length > 0 && (
        <Ruled title="First-boot tasks">
          <Screens screens={profile.firstBoot} />
        </Ruled>
      )}
    </>
  );
}

/** An upgrade in words: from what, to what, and through what. */
function upgradeWords(profile: Profile, { way, from, to, through }: Profile["upgrades"][number]): string {
  const done = way === "upgrade" ? "Upgraded" : "Converted";
  const family = from.profile === profile.profile ? profile.name : from.profile;
  const version = from.least ? `${from.least} or later of release line ${from.version}` : from.version;
  const means = through === "installer" ? "by the installer" : "in the running system";
  return `${done} from ${family} ${version}${to ? ` to ${to}` : ""}, ${means}`;
}

const RoadsOnto = ({ profile }: { profile: Profile }) => (
  <Ruled title="Installation methods">
    <Road title="Fresh installation" {...profile.fresh} needs={[]} />
    {profile.upgrades.map((u) => (
      <Road key={u.id} title={upgradeWords(profile, u)} {...u.fate} needs={u.needs} />
    ))}
  </Ruled>
);

/** On what a fault depends, each condition with its name. */
const faultWords = ({ road, target, model, part }: Profile["knownFaults"][number]["when"]): string =>
  [
    road && (road === "fresh" ? term(road) : "in-place upgrade"),
    target && `target: ${term(target)}`,
    model && `model: ${model}`,
    part && `device or driver: ${part}`,
  ]
    .filter(Boolean)
    .join(", ");

const KnownFaults = ({ faults }: { faults: Profile["knownFaults"] }) => (
  <Ruled title="Known faults">
    {faults.length === 0 && <p className="quiet">No known fault.</p>}
    {faults.map((f) => (
      <div key={f.id} className="mb-2">
        <p>{f.looks}</p>
        <p className="quiet">
          {f.remedy}
          {f.stone && ` Intermediate version: ${f.stone.profile} ${f.stone.version}.`} Applies to:{" "}
          {faultWords(f.when)}.
        </p>
      </div>
    ))}
  </Ruled>
);

const LogIns = ({ profile }: { profile: Profile }) => (
  <Ruled title="Logins and passwords">
    <p>{profile.passwords.words}</p>
    {profile.defaultLogins.map((l) => (
      <p key={l.name} className="mt-1">
        <strong>Default login:</strong> {l.name}
        <span className="quiet">
          , account {l.opens}; changed on the screen {l.changedOn}
        </span>
      </p>
    ))}
  </Ruled>
);

function Road({
  title,
  keeps,
  loses,
  words,
  needs,
}: {
  title: string;
  keeps: readonly string[];
  loses: readonly string[];
  words: string;
  needs: readonly string[];
}) {
  return (
    <div className="mb-3">
      <h3 className="font-semibold">{title}</h3>
      <p>
        keeps {terms(keeps) || "nothing"}
        {loses.length > 0 && (
          <>
            ; <span className="text-error">loses {terms(loses)}</span>
          </>
        )}
      </p>
      {words && <p className="quiet">{words}</p>}
      {needs.length > 0 && <p className="quiet">Requires: {needs.join(" ")}</p>}
    </div>
  );
}

function Screens({ screens }: { screens: readonly Screen[] }) {
  return (
    <ol>
      {screens.map((s, i) => (
        <li
          key={s.id}
          className="grid grid-cols-[2rem_minmax(0,1fr)_auto] gap-2 border-b py-1 border-base-300"
        >
          <span className="value quiet text-right">{i + 1}</span>
          <span>
            {s.title}
            {s.destroys && <strong className="text-error"> – erases the target</strong>}
            {s.when !== "always" && <span className="quiet"> – {s.when} only</span>}
            {s.expected.map((e) => (
              <span key={e.looks} className="quiet block text-[0.86rem]">
                Looks wrong but is normal: {e.looks}. {e.means}
              </span>
            ))}
          </span>
          <span className="value">
            {formatDuration(s.likely)}–{formatDuration(s.late)}
          </span>
        </li>
      ))}
    </ol>
  );
}
