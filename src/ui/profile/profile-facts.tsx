import type { Profile, Screen } from "@/core/image";
import { formatBinaryBytes, formatBytes, formatDuration } from "@/core/units";
import { Ruled } from "../frame/page";

const VERDICT = {
  supported: "var(--color-success)",
  discouraged: "var(--color-warning)",
  "not supported": "var(--color-error)",
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
          <th>Least</th>
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
            {r.processorLevel && `, at least ${r.processorLevel}`}; virtualisation {r.virtualisation}; IOMMU{" "}
            {r.iommu}
          </td>
        </tr>
      </tbody>
    </table>
  );
}

/** What a profile says, to be read: requirements, boot targets, faults, jumps, screens. */
export function ProfileFacts({ profile }: { profile: Profile }) {
  const { fresh } = profile;
  return (
    <>
      <div className="grid gap-x-10 lg:grid-cols-2">
        <Ruled title="Requirements">
          <Requirements requirements={profile.requirements} />
        </Ruled>
        <Ruled
          title="Starts from"
          note={`secure boot ${profile.secureBoot}; ${profile.firmware.modes.join(" and ")}`}
        >
          <table className="table" aria-label="Boot targets">
            <tbody>
              {profile.bootTargets.map((t) => (
                <tr key={t.kind}>
                  <th scope="row" className="w-32">
                    {t.kind}
                  </th>
                  <td className="w-32 font-semibold" style={{ color: VERDICT[t.verdict] }}>
                    {t.verdict}
                  </td>
                  <td>{t.words}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {profile.consoleKeys.map((k) => (
            <p key={k.keys} className="mt-1">
              <span className="value">{k.keys}</span> <span className="quiet">opens {k.opens}</span>
            </p>
          ))}
        </Ruled>
      </div>
      <div className="grid gap-x-10 lg:grid-cols-2">
        <Ruled title="Roads onto it">
          <Road
            title="Installed fresh"
            keeps={fresh.keeps}
            loses={fresh.loses}
            words={fresh.words}
            needs={[]}
          />
          {profile.upgrades.map((u) => (
            <Road
              key={u.id}
              title={`${u.way === "upgrade" ? "Upgraded" : "Converted"} from ${u.from.profile === profile.profile ? profile.name : u.from.profile} ${u.from.least ? `${u.from.least} or later of line ${u.from.version}` : u.from.version}${u.to ? ` to ${u.to}` : ""}, ${u.through === "installer" ? "by the installer" : "in the running system"}`}
              keeps={u.fate.keeps}
              loses={u.fate.loses}
              words={u.fate.words}
              needs={u.needs}
            />
          ))}
        </Ruled>
        <div>
          <Ruled title="Known faults">
            {profile.knownFaults.length === 0 && <p className="quiet">None is known.</p>}
            {profile.knownFaults.map((f) => (
              <div key={f.id} className="mb-2">
                <p>{f.looks}</p>
                <p className="quiet">
                  {f.remedy}
                  {f.stone && ` Stepping stone: ${f.stone.profile} ${f.stone.version}.`} Met when:{" "}
                  {Object.values(f.when).join(", ")}.
                </p>
              </div>
            ))}
          </Ruled>
          <Ruled title="Log-ins and passwords">
            <p>{profile.passwords.words}</p>
            {profile.defaultLogins.map((l) => (
              <p key={l.name} className="mt-1">
                <strong>Default log-in:</strong> {l.name}
                <span className="quiet">
                  , opens {l.opens}; changed on the screen {l.changedOn}
                </span>
              </p>
            ))}
          </Ruled>
        </div>
      </div>
      {profile.editions.length > 0 && (
        <Ruled title="Which product of the family">
          <table className="table">
            <thead>
              <tr>
                <th>Product</th>
                <th>Suits</th>
                <th>Lacks</th>
              </tr>
            </thead>
            <tbody>
              {profile.editions.map((e) => (
                <tr key={e.name}>
                  <th scope="row">{e.name}</th>
                  <td>{e.suits}</td>
                  <td>{e.lacks}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Ruled>
      )}
      <Ruled title="Screens, in order">
        <Screens screens={profile.screens} />
      </Ruled>
      {profile.firstBoot.length > 0 && (
        <Ruled title="First-boot work">
          <Screens screens={profile.firstBoot} />
        </Ruled>
      )}
    </>
  );
}

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
        keeps {keeps.join(", ") || "nothing"}
        {loses.length > 0 && (
          <>
            ; <span className="text-error">loses {loses.join(", ")}</span>
          </>
        )}
      </p>
      {words && <p className="quiet">{words}</p>}
      {needs.length > 0 && <p className="quiet">Needs: {needs.join(" ")}</p>}
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
                Looks wrong, is expected: {e.looks}. {e.means}
              </span>
            ))}
          </span>
          <span className="value">
            {formatDuration(s.likely)} … {formatDuration(s.late)}
          </span>
        </li>
      ))}
    </ol>
  );
}
