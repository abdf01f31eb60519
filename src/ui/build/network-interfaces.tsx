"use client";

import { term } from "@/core/text";
import { useState } from "react";
import {
  BOND_MODES,
  BOND_WORDS,
  HASHES,
  INTERFACE_KINDS,
  newInterface,
  portsBelow,
  PURPOSES,
  withInterface,
  type Interface,
  type InterfaceKind,
  type PortGroup,
} from "@/core/network";
import { Field, ParsedField, SelectField, TextField } from "../fields/fields";
import { wholeField } from "../fields/numbers";
import { Tick, TicksField } from "../fields/ticks";
import type { PartProps } from "./zone-props";

const vlan = wholeField("1 to 4094", (n) => n > 0 && n < 4095);
const mtu = wholeField("576 to 9216", (n) => n >= 576 && n <= 9216);
const AT = "network.interfaces" as const;
const KIND_WORDS: Record<InterfaceKind, string> = {
  port: "physical port",
  bond: "bond",
  vlan: "VLAN",
  bridge: "bridge",
  "virtual switch": "virtual switch",
};
const options = (words: readonly string[]) => words.map((w) => ({ value: w, text: term(w) }));

/** What is made of the machine's ports, one below the other, and which of it carries the management address. */
export default function NetworkInterfaces({ view, sheet, edit, marks }: PartProps) {
  const { interfaces, carrier, port } = sheet.network;
  const ports = view.context.machine?.document.facts.ports ?? [];
  const segments = view.context.site?.segments ?? [];
  const keys = useRowKeys(interfaces.length);
  const put = (i: number, next: Interface): void => {
    const now = withInterface({ interfaces, carrier }, i, next);
    edit({ [AT]: now.interfaces, ...(now.carrier !== carrier && { "network.carrier": now.carrier }) });
  };
  const remove = (i: number): void => {
    keys.remove(i);
    edit({
      [AT]: interfaces.filter((_, j) => j !== i),
      ...(carrier === interfaces[i]?.name && { "network.carrier": null }),
    });
  };
  const choose = (name: string): void => {
    const below = name === "" ? [] : portsBelow(interfaces, name);
    edit({
      "network.carrier": name || null,
      ...(below[0] && !below.includes(port ?? "") && { "network.port": below[0] }),
    });
  };
  return (
    <Field path={AT} label="Interfaces" marks={marks(AT)}>
      {interfaces.map((one, i) => (
        <OneInterface
          key={keys.of(i)}
          one={one}
          taken={interfaces.flatMap((o, j) => (j === i ? [] : [o.name]))}
          put={(next) => put(i, next)}
          remove={() => remove(i)}
          below={[
            ...ports.map((p) => ({ value: p.mac, text: `${p.seenAs} ${p.mac.slice(-5)}` })),
            ...options(interfaces.filter((o) => o !== one && o.kind !== "virtual switch").map((o) => o.name)),
          ]}
          segments={segments.map((s) => ({ value: s.id, text: s.name }))}
        />
      ))}
      <div className="flex flex-wrap items-end gap-3 pt-1">
        {INTERFACE_KINDS.map((kind) => (
          <button
            key={kind}
            type="button"
            className="btn"
            onClick={() =>
              edit({
                [AT]: [...interfaces, newInterface(kind, interfaces, firstFree(interfaces, kind, port))],
              })
            }
          >
            Add {KIND_WORDS[kind]}
          </button>
        ))}
        <div className="w-64">
          <SelectField
            path="network.carrier"
            label="Management address on"
            marks={marks("network.carrier")}
            value={carrier ?? ""}
            empty="the port itself"
            options={options(interfaces.map((i) => i.name))}
            onChange={choose}
          />
        </div>
      </div>
    </Field>
  );
}

/** What a new interface stands on at first: what carries the most already, else the management port. */
function firstFree(
  interfaces: readonly Interface[],
  kind: InterfaceKind,
  port: string | null,
): string | null {
  const last = interfaces.at(-1);
  return kind === "vlan" || kind === "bridge" ? (last?.name ?? port) : port;
}

/** Keys of rows that have no name which lasts: a field that is half typed stays with its row when another one is removed. */
function useRowKeys(count: number) {
  const [keys, setKeys] = useState<number[]>([]);
  const next = Math.max(0, ...keys) + 1;
  const all = Array.from({ length: count }, (_, i) => keys[i] ?? next + i);
  return {
    of: (i: number): number => all[i]!,
    remove: (i: number): void => setKeys(all.filter((_, j) => j !== i)),
  };
}

interface OneProps {
  one: Interface;
  /** Names that other interfaces have. */
  taken: readonly string[];
  put: (next: Interface) => void;
  remove: () => void;
  below: { value: string; text: string }[];
  segments: { value: string; text: string }[];
}

/** A name is read when it is whole: what stands on an interface goes along with it, and on the way it may be another one's. */
function nameOf(text: string, taken: readonly string[]): { value: string } | { problem: string } {
  const name = text.trim();
  if (name.length > 64) return { problem: "A name has at most 64 characters." };
  return taken.includes(name)
    ? { problem: `${name || "An empty name"} is the name of another interface.` }
    : { value: name };
}

function OneInterface({ one, taken, put, remove, below, segments }: OneProps) {
  const isMany = one.kind === "bond" || one.kind === "bridge" || one.kind === "virtual switch";
  return (
    <fieldset className="mb-3 border-l-2 py-1 pl-3 border-base-300">
      <legend className="sr-only">
        {KIND_WORDS[one.kind]} {one.name}
      </legend>
      <div className="grid items-start gap-x-6 gap-y-2 sm:grid-cols-2 md:grid-cols-4">
        <ParsedField
          path="interface.name"
          label={KIND_WORDS[one.kind]}
          value={one.name}
          format={(name) => name}
          parse={(text) => nameOf(text, taken)}
          onChange={(name) => put({ ...one, name })}
        />
        <div className="sm:col-span-3">
          {isMany ? (
            <TicksField
              path="interface.on"
              label={one.kind === "virtual switch" ? "Uplinks" : "Parent interface"}
              value={one.on}
              options={below}
              onChange={(on) => put({ ...one, on })}
            />
          ) : (
            <SelectField
              path="interface.on"
              label="Parent interface"
              value={one.on[0] ?? ""}
              empty="choose…"
              options={below}
              onChange={(on) => put({ ...one, on: on ? [on] : [] })}
            />
          )}
        </div>
        <KindFields {...{ one, put }} />
        {one.kind !== "virtual switch" && (
          <>
            <SelectField
              path="interface.segment"
              label="Network"
              value={one.segment ?? ""}
              empty="none"
              options={segments}
              onChange={(segment) => put({ ...one, segment: segment || null })}
            />
            <TextField
              path="interface.address"
              label="Own address"
              value={one.address}
              maxLength={64}
              placeholder="none"
              onChange={(address) => put({ ...one, address: address.trim() })}
            />
          </>
        )}
        <ParsedField
          path="interface.mtu"
          label="MTU"
          value={one.mtu}
          {...mtu}
          onChange={(next) => put({ ...one, mtu: next })}
        />
      </div>
      {one.kind === "virtual switch" && (
        <Groups groups={one.groups} segments={segments} put={(groups) => put({ ...one, groups })} />
      )}
      <button type="button" className="link quiet mt-1" onClick={remove}>
        Remove {one.name || one.kind}
      </button>
    </fieldset>
  );
}

function KindFields({ one, put }: Pick<OneProps, "one" | "put">) {
  if (one.kind === "vlan")
    return (
      <ParsedField
        path="interface.vlan"
        label="VLAN"
        value={one.vlan}
        {...vlan}
        onChange={(next) => put({ ...one, vlan: next })}
      />
    );
  if (one.kind === "bridge")
    return (
      <div className="self-end pb-1">
        <Tick label="VLAN-aware" value={one.vlanAware} onChange={(vlanAware) => put({ ...one, vlanAware })} />
      </div>
    );
  if (one.kind !== "bond") return null;
  const isHashed = one.mode === "802.3ad" || one.mode === "balance-xor";
  return (
    <>
      <SelectField
        path="interface.mode"
        label="Mode"
        value={one.mode}
        options={options(BOND_MODES)}
        hint={BOND_WORDS[one.mode].does}
        onChange={(mode) => put({ ...one, mode: mode as typeof one.mode })}
      />
      {isHashed && (
        <SelectField
          path="interface.hash"
          label="Transmit hash policy"
          value={one.hash}
          options={options(HASHES)}
          onChange={(hash) => put({ ...one, hash: hash as typeof one.hash })}
        />
      )}
    </>
  );
}

/** The port groups of a virtual switch, each named by what it is for. */
function Groups({
  groups,
  segments,
  put,
}: {
  groups: readonly PortGroup[];
  segments: OneProps["segments"];
  put: (groups: PortGroup[]) => void;
}) {
  const set = (i: number, next: PortGroup): void => put(groups.map((g, j) => (j === i ? next : g)));
  return (
    <div className="mt-2">
      {groups.map((g, i) => (
        <div key={i} className="mb-1 grid items-end gap-x-6 gap-y-1 sm:grid-cols-[1fr_1fr_1fr_auto]">
          <TextField
            path="group.name"
            label={`Port group ${i + 1}`}
            value={g.name}
            maxLength={64}
            onChange={(name) => set(i, { ...g, name })}
          />
          <SelectField
            path="group.purpose"
            label="Purpose"
            value={g.purpose}
            options={options(PURPOSES)}
            onChange={(purpose) => set(i, { ...g, purpose: purpose as PortGroup["purpose"] })}
          />
          <SelectField
            path="group.segment"
            label="Network"
            value={g.segment ?? ""}
            empty="choose…"
            options={segments}
            onChange={(segment) => set(i, { ...g, segment: segment || null })}
          />
          <button
            type="button"
            className="link quiet mb-1"
            onClick={() => put(groups.filter((_, j) => j !== i))}
          >
            Remove<span className="sr-only"> port group {g.name}</span>
          </button>
        </div>
      ))}
      <button
        type="button"
        className="btn"
        onClick={() =>
          put([
            ...groups,
            {
              name: groups.length === 0 ? "Management" : "Guests",
              purpose: groups.length === 0 ? "management" : "guests",
              segment: null,
            },
          ])
        }
      >
        Add port group
      </button>
    </div>
  );
}
