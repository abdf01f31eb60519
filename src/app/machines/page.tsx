import Link from "next/link";
import { listMachines } from "@/server/machines";
import { Page } from "@/ui/frame/page";
import { MACHINE_SHEETS, SubSheets } from "@/ui/frame/sub-sheets";
import type { MachineLine } from "@/ui/machine/list-columns";
import { MachineList } from "@/ui/machine/machine-list";
import { desk } from "../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Machines" };

export default async function Machines() {
  const machines = await listMachines(await desk());
  const lines = machines.map(({ id, name, site, serial, summary: s, build, next, href }): MachineLine => ({
    id,
    name,
    site,
    drives: s.drives,
    rawBytes: s.rawBytes,
    ports: s.ports,
    health: s.health,
    ...known({
      place: s.place,
      role: s.role,
      model: [s.maker, s.model].filter(Boolean).join(" "),
      serial: serial ?? "",
      controller: s.controller,
      cores: s.cores ?? 0,
      memory: s.memoryBytes ?? 0,
      defects: s.defects,
      system: s.system,
      firmware: s.firmware,
      becoming: build ? build.subject || "(no subject)" : "",
      next,
      href,
      read: s.readAt ?? "",
    }),
  }));
  return (
    <Page
      title="Machines"
      lead={
        machines.length === 0
          ? "No machine yet. Run the collector on one, or import the output of its tools."
          : undefined
      }
      aside={
        <div className="flex flex-wrap gap-2">
          {machines.length > 0 && (
            <a className="btn" href="/api/v1/machines.csv" download="machines.csv">
              Export CSV
            </a>
          )}
          <Link className="btn" href="/machines/list">
            Import CSV
          </Link>
          <Link className="btn" href="/machines/new">
            Add machine
          </Link>
        </div>
      }
    >
      <SubSheets sheets={MACHINE_SHEETS} open="/machines" />
      <MachineList machines={lines} />
    </Page>
  );
}

/** Without what is empty or zero. */
const known = <T extends object>(values: T): Partial<T> =>
  Object.fromEntries(Object.entries(values).filter(([, v]) => v !== "" && v !== 0)) as Partial<T>;
