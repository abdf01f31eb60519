"use client";

import {
  endKey,
  formatVlans,
  parseVlans,
  switchPort,
  switchPortSchema,
  type CableEnd,
  type SwitchPort,
} from "@/core/network";
import { endFromWords, endWords, type Directory, type Site } from "@/core/site";
import type { Typing } from "../draft/bound";
import { ChoiceField, ParsedField, TextField } from "../fields/fields";
import { wholeField } from "../fields/numbers";

const vlan = wholeField("1 to 4094", (n) => n > 0 && n < 4095);
const vlans = {
  format: (text: string) => text,
  parse(typed: string): { value: string } | { problem: string } {
    const read = parseVlans(typed);
    return read.ok ? { value: formatVlans(read.value) } : { problem: read.problems[0]!.message };
  },
};

/** The port that is chosen in the drawing: how it is set, and where its cable goes. */
export function PortPanel({
  typing,
  directory,
  end,
}: {
  typing: Typing<Site>;
  directory: Directory;
  end: CableEnd;
}) {
  const { devices } = typing.document;
  const device = "device" in end ? devices.find((d) => d.id === end.device) : undefined;
  return (
    <section className="no-print mt-3 border-l-2 pl-4 border-base-content" aria-label="Chosen port">
      <h3 className="mb-1 font-semibold">
        {endWords(directory, end)}
        {"mac" in end && <span className="value quiet ml-2 font-normal">{end.mac}</span>}
      </h3>
      <div className="grid max-w-4xl gap-x-6 gap-y-2 sm:grid-cols-2 md:grid-cols-4">
        {device && "device" in end && (
          <PortFields
            port={switchPort(device, end.port) ?? switchPortSchema.parse({ name: end.port })}
            set={(next) => {
              const others = device.ports.filter((p) => p.name !== next.name);
              const ports = [...others, next];
              typing.type({ devices: devices.map((d) => (d === device ? { ...d, ports } : d)) });
            }}
          />
        )}
        <CableTo {...{ typing, directory, end }} />
      </div>
    </section>
  );
}

function PortFields({ port, set }: { port: SwitchPort; set: (port: SwitchPort) => void }) {
  return (
    <>
      <ChoiceField
        path="port.mode"
        label="Mode"
        value={port.mode}
        options={[
          { value: "access", text: "access" },
          { value: "trunk", text: "trunk" },
        ]}
        onChange={(mode) => set({ ...port, mode, allowed: mode === "access" ? "" : port.allowed })}
      />
      <ParsedField
        path="port.native"
        label={port.mode === "access" ? "VLAN" : "Native VLAN"}
        value={port.native}
        {...vlan}
        onChange={(native) => set({ ...port, native })}
      />
      {port.mode === "trunk" && (
        <ParsedField
          path="port.allowed"
          label="Tagged VLANs"
          value={port.allowed}
          {...vlans}
          onChange={(allowed) => set({ ...port, allowed })}
        />
      )}
      <TextField
        path="port.group"
        label="LAG"
        value={port.group}
        maxLength={40}
        onChange={(group) => set({ ...port, group: group.trim() })}
      />
      {port.group !== "" && (
        <ChoiceField
          path="port.lacp"
          label="LAG mode"
          value={port.lacp ? "lacp" : "on"}
          options={[
            { value: "lacp", text: "LACP" },
            { value: "on", text: "static LAG" },
          ]}
          onChange={(by) => set({ ...port, lacp: by === "lacp" })}
        />
      )}
    </>
  );
}

/** Where the cable in a port goes, typed as "wrk-sw1 3"; nothing for no cable. */
function CableTo({ typing, directory, end }: { typing: Typing<Site>; directory: Directory; end: CableEnd }) {
  const { cables } = typing.document;
  const own = cables.find((c) => [c.a, c.b].some((e) => endKey(e) === endKey(end)));
  const far = own && (endKey(own.a) === endKey(end) ? own.b : own.a);
  return (
    <ParsedField
      path="port.cable"
      label="Cable to"
      value={far ?? null}
      placeholder="name and port"
      format={(to: CableEnd | null) => (to ? endWords(directory, to) : "")}
      parse={(text) => (text.trim() === "" ? { value: null } : endFromWords(directory, text))}
      onChange={(to) => {
        const others = cables.filter((c) => c !== own);
        const made = { lengthMetres: own?.lengthMetres ?? null, label: own?.label ?? "" };
        const id = own?.id ?? `cable-${Date.now().toString(36)}-${cables.length}`;
        typing.type({ cables: to ? [...others, { id, a: end, b: to, ...made }] : others });
      }}
    />
  );
}
