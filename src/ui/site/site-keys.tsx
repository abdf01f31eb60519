import Link from "next/link";
import type { KeyedMachine, SiteKey, SiteSecret } from "@/core/identity";
import { Page, Ruled } from "../frame/page";
import { Day } from "../frame/person";
import { Signal } from "../frame/signal";
import { siteSheets, SubSheets } from "../frame/sub-sheets";

const whoseWords = ({ whose }: SiteKey): string => whose || "no key owner";
const lastSigns = ({ fingerprint }: SiteKey): string => fingerprint.slice(-8);

/** Which keys open which machines of a site, and until when; and which secrets go to them. */
export function SiteKeys({
  id,
  name,
  room,
  today,
  machines,
  keys,
  secrets,
}: {
  id: string;
  name: string;
  room: string;
  today: string;
  machines: readonly KeyedMachine[];
  keys: readonly SiteKey[];
  secrets: readonly SiteSecret[];
}) {
  return (
    <Page title={name} lead={room}>
      <SubSheets sheets={siteSheets(id)} open={`/sites/${id}/keys`} />
      <Ruled
        title="Keys"
        note="from the latest build sheet of each machine; keys that were added on a machine since then are not known"
      >
        {keys.length > 0 ? (
          <Keys {...{ keys, machines, today }} />
        ) : (
          <p className="quiet">No build sheet of this site gives an account a public key.</p>
        )}
      </Ruled>
      {keys.length > 0 && (
        <Ruled title="Keys by machine" note="account of each key, and its end date">
          <Matrix {...{ keys, machines, today }} />
        </Ruled>
      )}
      {secrets.length > 0 && (
        <Ruled
          title="Secret parameters"
          note="stored encrypted for one build sheet each, and destroyed when its run ends"
        >
          <Secrets secrets={secrets} />
        </Ruled>
      )}
    </Page>
  );
}

const Until = ({ day, today }: { day: string; today: string }) =>
  day === "" ? (
    <span className="quiet">no end date</span>
  ) : day < today ? (
    <span className="font-semibold text-error">
      expired since <Day at={day} />
    </span>
  ) : (
    <>
      until <Day at={day} />
    </>
  );

function Keys({
  keys,
  machines,
  today,
}: {
  keys: readonly SiteKey[];
  machines: readonly KeyedMachine[];
  today: string;
}) {
  return (
    <table className="table" aria-label="Keys of this site">
      <thead>
        <tr>
          <th>Owner</th>
          <th>Kind</th>
          <th>Fingerprint</th>
          <th>Account</th>
          <th>Ends first</th>
        </tr>
      </thead>
      <tbody>
        {keys.map((key) => {
          const reach = new Set(key.doors.map((d) => d.machineId)).size;
          const first =
            key.doors.map((d) => d.until).sort((a, b) => (a || "9999").localeCompare(b || "9999"))[0] ?? "";
          const isAll = machines.length > 1 && reach === machines.length;
          return (
            <tr key={key.blob}>
              <td className={key.whose ? "font-semibold" : "text-error"}>{whoseWords(key)}</td>
              <td className="value">{key.type.replace(/^ssh-/, "")}</td>
              <td className="value [overflow-wrap:anywhere]">{key.fingerprint}</td>
              <td>
                {isAll && <Signal severity="caution" size={12} />}{" "}
                {isAll
                  ? `all ${reach} machines with a build sheet`
                  : `${reach} of ${machines.length} machines`}
                {key.elsewhere > 0 && `, and ${key.elsewhere} at other sites`}
              </td>
              <td>
                <Until day={first} today={today} />
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Matrix({
  keys,
  machines,
  today,
}: {
  keys: readonly SiteKey[];
  machines: readonly KeyedMachine[];
  today: string;
}) {
  return (
    <div className="overflow-x-auto">
      <table className="table" aria-label="Keys by machine">
        <thead>
          <tr>
            <th>Machine</th>
            <th>Sheet</th>
            {keys.map((key) => (
              <th key={key.blob} className="normal-case">
                {whoseWords(key)} <span className="value">{lastSigns(key)}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {machines.map((machine) => (
            <tr key={machine.id}>
              <td>
                <Link className="link font-semibold" href={`/machines/${machine.id}`}>
                  {machine.name}
                </Link>
              </td>
              <td>
                <Link className="link" href={`/builds/${machine.build}#zone-F`}>
                  {machine.number}
                </Link>
              </td>
              {keys.map((key) => {
                const doors = key.doors.filter((d) => d.machineId === machine.id);
                return (
                  <td key={key.blob}>
                    {doors.length === 0 && (
                      <span className="quiet">{machine.isRead ? "–" : "not readable"}</span>
                    )}
                    {doors.map((d) => (
                      <div key={d.account}>
                        {d.account}, <Until day={d.until} today={today} />
                      </div>
                    ))}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Secrets({ secrets }: { secrets: readonly SiteSecret[] }) {
  return (
    <table className="table max-w-4xl" aria-label="Secret parameters of this site">
      <thead>
        <tr>
          <th>Name</th>
          <th>Used for</th>
          <th>Stored</th>
          <th>Reused</th>
        </tr>
      </thead>
      <tbody>
        {secrets.flatMap(({ name, sheets }) =>
          sheets.map((sheet) => (
            <tr key={`${name} ${sheet.build}`}>
              <td className="value">{name}</td>
              <td>
                <Link className="link" href={`/builds/${sheet.build}/passwords`}>
                  {sheet.machine}, {sheet.number}
                </Link>
              </td>
              <td>
                {sheet.state === "sealed" ? "encrypted, until the run ends" : "destroyed after the run"}
              </td>
              <td>
                {sheet.shared ? (
                  <span className="font-semibold">
                    <Signal severity="caution" size={12} /> the same value is stored for another sheet
                  </span>
                ) : (
                  "no"
                )}
              </td>
            </tr>
          )),
        )}
      </tbody>
    </table>
  );
}
