import { SegmentStrip } from "../network/segment-strip";
import { ChoiceField, ParsedField, SelectField, TextField } from "../fields/fields";
import { NetworkParts } from "./network-parts";
import { originOf } from "./origin";
import type { ZoneProps } from "./zone-props";

const SCHOOLS = [
  { value: "fixed", text: "static" },
  { value: "reserved", text: "DHCP reservation" },
  { value: "dynamic", text: "DHCP" },
] as const;

const SCHOOL_WORDS = {
  fixed: "Works without the DHCP server; every change is made on the machine.",
  reserved: "All addresses are managed in one place; the machine needs the DHCP server at every boot.",
  dynamic: "The address can change. Set a date by which it becomes static.",
};

export const listField = {
  format: (list: string[]) => list.join(", "),
  parse: (text: string) => ({ value: text.split(/[\s,]+/).filter(Boolean) }),
};

type Shown = Pick<ZoneProps, "view" | "sheet" | "edit" | "marks">;

export function NetworkZone({ view, sheet, edit, marks }: Shown) {
  const { network } = sheet;
  const { site, machine } = view.context;
  const ports = machine?.document.facts.ports ?? [];
  const chooseSegment = (id: string) => {
    const segment = site?.segments.find((s) => s.id === id);
    edit({
      "network.segment": id || null,
      ...(segment && {
        "network.gateway": segment.gateway ?? "",
        "network.nameServers": segment.nameServers,
      }),
    });
  };
  return (
    <div className="space-y-3">
      <div className="grid gap-x-8 gap-y-3 md:grid-cols-2">
        <SelectField
          path="network.port"
          label="Management port"
          marks={marks("network.port")}
          value={network.port ?? ""}
          empty="choose …"
          options={ports.map((p) => ({
            value: p.mac,
            text: `${p.seenAs}  ${p.mac}  link ${p.link}${p.kind === "wireless" ? ", wireless" : ""}`,
          }))}
          onChange={(mac) => edit({ "network.port": mac || null })}
        />
        <SelectField
          path="network.segment"
          label="Network"
          marks={marks("network.segment")}
          value={network.segment ?? ""}
          empty="choose…"
          options={(site?.segments ?? []).map((s) => ({
            value: s.id,
            text: `${s.name}  ${s.prefix}${s.vlan ? `  VLAN ${s.vlan}` : ""}`,
          }))}
          onChange={chooseSegment}
        />
        <ChoiceField
          path="network.school"
          label="Address assignment"
          marks={marks("network.school")}
          value={network.school}
          options={SCHOOLS}
          onChange={(v) => edit({ "network.school": v })}
          hint={SCHOOL_WORDS[network.school]}
        />
        <AddressFields {...{ view, sheet, edit, marks }} />
      </div>
      {view.segmentPlan.length > 0 && (
        <SegmentStrip
          stretches={view.segmentPlan}
          mark={network.school === "dynamic" ? null : network.address}
        />
      )}
      <NetworkParts {...{ view, sheet, edit, marks }} />
    </div>
  );
}

/** The address and what goes with it, or the day by which there is one. */
function AddressFields({ view, sheet, edit, marks }: Shown) {
  const { network } = sheet;
  return (
    <>
      {network.school === "dynamic" ? (
        <TextField
          path="network.fixedBy"
          label="Static by"
          type="date"
          marks={marks("network.fixedBy")}
          value={network.fixedBy ?? ""}
          onChange={(v) => edit({ "network.fixedBy": v || null })}
        />
      ) : (
        <TextField
          path="network.address"
          label="Address"
          marks={marks("network.address")}
          value={network.address}
          onChange={(v) => edit({ "network.address": v.trim() })}
          hint={
            originOf("network.address", sheet, view.context) ??
            (view.nextFree && view.nextFree !== network.address && (
              <button
                type="button"
                className="link"
                onClick={() => edit({ "network.address": view.nextFree ?? "" })}
              >
                next free: <span className="value">{view.nextFree}</span>
              </button>
            ))
          }
        />
      )}
      {network.school === "fixed" && (
        <>
          <TextField
            path="network.gateway"
            label="Gateway"
            marks={marks("network.gateway")}
            hint={originOf("network.gateway", sheet, view.context)}
            value={network.gateway}
            onChange={(v) => edit({ "network.gateway": v.trim() })}
          />
          <ParsedField
            path="network.nameServers"
            label="DNS servers"
            marks={marks("network.nameServers")}
            hint={originOf("network.nameServers", sheet, view.context)}
            value={network.nameServers}
            {...listField}
            onChange={(v) => edit({ "network.nameServers": v })}
          />
        </>
      )}
    </>
  );
}
