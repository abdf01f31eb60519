"use client";

import { useMemo, useState } from "react";
import { DataList } from "../frame/data-list";
import { COLUMNS, type MachineLine } from "./list-columns";

const wordsOf = (m: MachineLine): string => Object.values(m).join(" ");

/** Several hundred machines, narrowed by site as well. */
export function MachineList({ machines }: { machines: MachineLine[] }) {
  const [site, setSite] = useState("");
  const rows = useMemo(() => machines.filter((m) => site === "" || m.site === site), [machines, site]);
  const sites = [...new Set(machines.map((m) => m.site))].sort();
  return (
    <DataList
      label="Machines"
      what="machines"
      rows={rows}
      columns={COLUMNS}
      remembered="derrick_machine_columns"
      sortedBy={{ id: "name", desc: false }}
      wordsOf={wordsOf}
      hrefOf={(m) => `/machines/${m.id}`}
      minWidth="60rem"
      narrowWidth="35rem"
      placeholder="name, serial, model, health, role…"
      beside={
        <label className="w-40">
          <span className="label">Site</span>
          <select className="select" value={site} onChange={(e) => setSite(e.target.value)}>
            <option value="">all</option>
            {sites.map((s) => (
              <option key={s}>{s}</option>
            ))}
          </select>
        </label>
      }
    />
  );
}
