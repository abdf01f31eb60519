"use client";

import Link from "next/link";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Caller } from "@/core/netboot";
import { formatDateTime } from "@/core/units";
import { Problems } from "../frame/problems";

export interface Stranger {
  mac: string;
  times: number;
  at: string;
  caller: Caller;
  /** The machine that it is by its MAC; null for one that nobody knows. */
  machine: { id: string; name: string } | null;
}

type Adopt = (
  mac: string,
  site: string,
  name: string,
) => Promise<{ ok: boolean; problems?: readonly { message: string }[] }>;

/** Machines that asked and that nobody has armed; a machine that no site is known of has no time zone either. */
export function Strangers({
  strangers,
  inAll,
  sites,
  adopt,
}: {
  strangers: readonly Stranger[];
  /** How many MACs asked, where only the newest are listed. */
  inAll: number | null;
  sites: readonly { id: string; name: string }[];
  adopt: Adopt;
}) {
  return (
    <>
      {inAll !== null && inAll > strangers.length && (
        <p className="mb-2">
          The newest of {inAll} MAC addresses.{" "}
          <Link className="link" href="/builds/netboot?asked=all">
            Show all
          </Link>
        </p>
      )}
      <div className="overflow-x-auto">
        <table className="table" aria-label="Boot requests from machines that are not armed">
          <thead>
            <tr>
              <th>Last request</th>
              <th>MAC</th>
              <th>Machine or serial</th>
              <th>Vendor and model</th>
              <th>From</th>
              <th>Requests</th>
              <th aria-label="Action" />
            </tr>
          </thead>
          <tbody>
            {strangers.map(({ mac, times, at, caller, machine }) => (
              <tr key={mac}>
                <td className="value">{formatDateTime(at, "UTC")} UTC</td>
                <td className="value">{mac || "not reported"}</td>
                <td className="value">
                  {/* Of a known machine it is asked for when it is armed: it is read at the machine, and not here. */}
                  {machine ? (
                    <Link className="link font-sans" href={`/machines/${machine.id}`}>
                      {machine.name}
                    </Link>
                  ) : (
                    caller.serial || "not reported"
                  )}
                </td>
                <td>{[caller.maker, caller.model].filter(Boolean).join(" ") || "not reported"}</td>
                <td className="value">{caller.address}</td>
                <td className="value">{times}</td>
                <td>{!machine && mac && <MakeMachine mac={mac} sites={sites} adopt={adopt} />}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

/** Asks for what no machine tells by itself: its name, and where it stands. */
function MakeMachine({
  mac,
  sites,
  adopt,
}: {
  mac: string;
  sites: readonly { id: string; name: string }[];
  adopt: Adopt;
}) {
  const router = useRouter();
  const [name, setName] = useState("");
  const [site, setSite] = useState(sites.length === 1 ? (sites[0]?.id ?? "") : "");
  const [problems, setProblems] = useState<readonly { message: string }[]>([]);
  // A list of all has some thousand of them.
  const [isOpen, setOpen] = useState(false);
  const send = async (): Promise<void> => {
    const answer = await adopt(mac, site, name);
    setProblems(answer.ok ? [] : (answer.problems ?? []));
    if (answer.ok) router.refresh();
  };
  return (
    <details onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="link cursor-pointer">Add as machine</summary>
      {isOpen && (
        <form
          className="mt-1 w-56 space-y-1"
          onSubmit={(e) => {
            e.preventDefault();
            if (name.trim() !== "" && site !== "") void send();
          }}
        >
          <Problems problems={problems} title="Not added" />
          <input
            className="input"
            aria-label={`Name of the machine with the MAC ${mac}`}
            placeholder="name, as on its front"
            maxLength={80}
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
          <select
            className="select"
            aria-label={`Site of the machine with the MAC ${mac}`}
            value={site}
            onChange={(e) => setSite(e.target.value)}
          >
            <option value="">choose a site…</option>
            {sites.map((s) => (
              <option key={s.id} value={s.id}>
                {s.name}
              </option>
            ))}
          </select>
          <button type="submit" className="btn" disabled={name.trim() === "" || site === ""}>
            Add machine
          </button>
        </form>
      )}
    </details>
  );
}
