import Link from "next/link";
import { Day } from "../frame/person";
import { Ruled } from "../frame/page";

export interface OpenDoor {
  until: string;
  service: string;
  what: string;
  href: string;
}

const NEVER = "9999-12-31";

/** What stands open from outside at a site, those first that are closed first; nothing where nothing does. */
export function OpenDoors({ doors }: { doors: readonly OpenDoor[] }) {
  if (doors.length === 0) return null;
  return (
    <Ruled title="Externally reachable services" note="planned on build sheets, each with an end date">
      <table className="table max-w-3xl" aria-label="Externally reachable services">
        <tbody>
          {doors.map((d) => (
            <tr key={`${d.href} ${d.service} ${d.until}`}>
              <td className="value">{d.service}</td>
              <td>
                <Link className="link" href={d.href}>
                  {d.what}
                </Link>
              </td>
              <td>
                {d.until === NEVER ? (
                  "no end date"
                ) : (
                  <>
                    end date <Day at={d.until} />
                  </>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </Ruled>
  );
}
