"use client";

import { useMemo, useState } from "react";
import type { WrittenView } from "@/core/document";
import type { PlacedFinding } from "@/core/finding";
import { cableLabels, type CableEnd } from "@/core/network";
import {
  cableCells,
  cableRows,
  cablesFrom,
  DEVICE,
  devicesFrom,
  endWords,
  portsFrom,
  SITE_NAMES,
  SWITCH_PORT,
  type Directory,
  type Site,
  type WiredMachine,
} from "@/core/site";
import type { Typing } from "../draft/bound";
import { useWritten, type WrittenActions } from "../draft/use-written";
import { WrittenFoot } from "../draft/written-foot";
import { EntryTable } from "../fields/entry-table";
import { Unfold } from "../fields/unfold";
import { Page, Ruled } from "../frame/page";
import { siteSheets, SubSheets } from "../frame/sub-sheets";
import { TitleBlock, type TitleCell } from "../frame/title-block";
import { PortPanel } from "./port-panel";
import { SiteFindings } from "./site-findings";
import { WiringDrawing } from "./wiring-drawing";

let made = 0;
/** An id that nothing of a site has yet: the time, and how many were made in this window. */
const newId = (what: string): string => `${what}-${Date.now().toString(36)}-${(made += 1)}`;

/** The things and cables of a site: drawn, and as tables behind the drawing. It saves by itself. */
export function WiringSheet({
  id,
  given,
  actions,
  cells,
  machines,
  findings,
}: {
  id: string;
  given: WrittenView<Site>;
  actions: WrittenActions<Site>;
  cells: TitleCell[];
  machines: readonly WiredMachine[];
  findings: readonly PlacedFinding[];
}) {
  const draft = useWritten("site", id, given, actions);
  const { document: site } = draft;
  const { devices } = site;
  const directory: Directory = useMemo(() => ({ devices, machines }), [devices, machines]);
  return (
    <>
      <Page title={site.name} lead={site.room}>
        <SubSheets sheets={siteSheets(id)} open={`/sites/${id}/wiring`} />
        <SiteFindings findings={findings.filter((f) => ["cable", "device"].includes(f.at))} />
        <Drawing {...{ typing: draft, directory }} />
        <Ruled
          title="Other devices"
          note="switches, routers, power strips, printers; you can paste cells of a spreadsheet"
        >
          <EntryTable
            path="devices"
            label="Devices"
            value={site.devices}
            of={DEVICE}
            onChange={(rows) =>
              draft.type({ devices: devicesFrom(rows, site.devices, () => newId("device")) })
            }
          />
        </Ruled>
        <SwitchPorts typing={draft} />
        <CableList {...{ typing: draft, directory }} />
      </Page>
      <TitleBlock cells={cells}>
        <WrittenFoot what="site" draft={draft} names={SITE_NAMES} timeZone={site.timeZone} />
      </TitleBlock>
    </>
  );
}

/** The drawing with the port that is chosen in it; choosing draws nothing else anew. */
function Drawing({ typing, directory }: { typing: Typing<Site>; directory: Directory }) {
  const [chosen, setChosen] = useState<CableEnd | null>(null);
  const { document: site } = typing;
  return (
    <Ruled title="Cables" note="select a port with a click, or with Tab and the arrow keys">
      {site.devices.length === 0 ? (
        <p className="quiet">No switch is known. Add one to the table below, with its number of ports.</p>
      ) : (
        <WiringDrawing {...{ site, directory, chosen }} onChoose={setChosen} />
      )}
      {chosen && <PortPanel key={JSON.stringify(chosen)} {...{ typing, directory }} end={chosen} />}
    </Ruled>
  );
}

/** The ports of each thing that has any, folded. */
function SwitchPorts({ typing }: { typing: Typing<Site> }) {
  const { devices } = typing.document;
  const withPorts = devices.filter((d) => d.portCount > 0 || d.ports.length > 0);
  if (withPorts.length === 0) return null;
  return (
    <Ruled
      title="Switch port configuration"
      note="a row can cover a range, for example 1-12; ports without a row are unspecified"
    >
      {withPorts.map((d) => (
        <Unfold
          key={d.id}
          title={`${d.name}: ${d.ports.length} of ${Math.max(d.portCount, d.ports.length)} ports configured`}
        >
          <EntryTable
            path={`devices.${devices.indexOf(d)}.ports`}
            label={`Ports of ${d.name}`}
            value={d.ports}
            of={SWITCH_PORT}
            onChange={(rows) =>
              typing.type({
                devices: devices.map((o) => (o.id === d.id ? { ...o, ports: portsFrom(rows) } : o)),
              })
            }
          />
        </Unfold>
      ))}
    </Ruled>
  );
}

function CableList({ typing, directory }: { typing: Typing<Site>; directory: Directory }) {
  const { cables } = typing.document;
  const nameOf = (end: CableEnd): string => endWords(directory, end);
  const cells = useMemo(() => cableCells(directory), [directory]);
  const rows = useMemo(() => cableRows(directory, cables), [directory, cables]);
  return (
    <Ruled title="Cable list" note="names of machines and devices, and their ports">
      <EntryTable
        path="cables"
        label="Cables"
        value={rows}
        of={cells}
        onChange={(rows) =>
          typing.type({ cables: cablesFrom(directory, rows, cables, () => newId("cable")) })
        }
      />
      {cables.length > 0 && (
        <Unfold title={`Labels for both ends of ${cables.length} cables`}>
          <table className="table" aria-label="Cable labels">
            <thead>
              <tr>
                <th className="label">Label at the first end</th>
                <th className="label">Label at the other end</th>
              </tr>
            </thead>
            <tbody>
              {cables.map((c) => {
                const { atA, atB } = cableLabels(c, nameOf);
                return (
                  <tr key={c.id}>
                    <td className="value">{atA}</td>
                    <td className="value">{atB}</td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        </Unfold>
      )}
    </Ruled>
  );
}
