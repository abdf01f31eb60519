"use client";

import { consoleLines } from "@/core/network";
import { CopyValue } from "../frame/copy-value";
import { HostKeys } from "./host-keys";
import type { PartProps } from "./zone-props";

/** Addresses, names and pages that are to be seen after the installation, each with what it is. */
export default function NetworkConsole(props: PartProps) {
  const { view, sheet } = props;
  const { site, machine, profile } = view.context;
  const { hostName, domain, accounts } = sheet.answers;
  const values = {
    "host.address": sheet.network.school === "dynamic" ? "" : sheet.network.address,
    "host.name": hostName,
    "host.fqdn": [hostName, domain].filter(Boolean).join("."),
    "account.admin": accounts.find((a) => a.role === "administrator")?.name ?? accounts[0]?.name ?? "",
  };
  const lines = consoleLines({ sheet, site, machine }, profile?.management ?? null, values);
  if (lines.length === 0) return <p className="quiet">Choose port and address first.</p>;
  return (
    <>
      <table className="table max-w-4xl" aria-label="Expected console output">
        <tbody>
          {lines.map((l) => (
            <tr key={l.what}>
              <th scope="row" className="w-32 text-left">
                <span className="label">{l.what}</span>
              </th>
              <td>
                <CopyValue value={l.value} />
              </td>
              <td className="quiet">{l.means}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {(profile?.management.kind === "remote shell" || sheet.network.hostKeys.length > 0) && (
        <HostKeys {...props} />
      )}
    </>
  );
}
