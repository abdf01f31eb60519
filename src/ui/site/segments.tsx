"use client";

import { term } from "@/core/text";
import { isAddress, parsePrefix, type Segment } from "@/core/network";
import { parseAddresses, RANGE, RESERVATION, type Site } from "@/core/site";
import { useKept } from "../draft/use-kept";
import { bound, type Typing } from "../draft/bound";
import { EntryTable } from "../fields/entry-table";
import { ParsedField, SelectField, TextField } from "../fields/fields";
import { checkedText, wholeField } from "../fields/numbers";
import { Unfold } from "../fields/unfold";

const FEW = 6;
const PURPOSES: Segment["purpose"][] = ["management", "uplink", "storage", "guests", "isolated lab"];
const isPrefix = (text: string): boolean => parsePrefix(text) !== null;
const prefix = checkedText(isPrefix, "enter a subnet, for example 10.61.10.0/24");
const gateway = {
  format: (address: string | null) => address ?? "",
  parse(typed: string): { value: string | null } | { problem: string } {
    const text = typed.trim();
    if (text === "") return { value: null };
    return isAddress(text) ? { value: text } : { problem: "an address, or nothing" };
  },
};
const addresses = {
  format: (list: string[]) => list.join(", "),
  parse(text: string): { value: string[] } | { problem: string } {
    const read = parseAddresses(text);
    return read.ok ? { value: read.value } : { problem: read.problems.map((p) => p.message).join("; ") };
  },
};
const vlan = wholeField("1 to 4094", (n) => n > 0 && n < 4095);
const mtu = wholeField("576 to 9216", (n) => n >= 576 && n <= 9216);
/** A stretch of addresses as "10.61.10.20 to 10.61.10.59". */
const servers = {
  format: (range: Segment["servers"]) => (range ? `${range.from} to ${range.to}` : ""),
  parse(typed: string): { value: Segment["servers"] } | { problem: string } {
    const [from, to, ...more] = typed
      .trim()
      .split(/\s*(?:\bto\b|–|\s-\s|\s)\s*/)
      .filter(Boolean);
    if (from === undefined) return { value: null };
    return to !== undefined && more.length === 0 && isAddress(from) && isAddress(to)
      ? { value: { from, to } }
      : { problem: "two addresses, for example 10.61.10.20 to 10.61.10.59" };
  },
};

/** The networks of a site. One is added by its name and prefix, and has the rest typed into it. */
export function Segments({ typing }: { typing: Typing<Site> }) {
  const { segments } = typing.document;
  const set = (next: Segment[]): void => typing.type({ segments: next });
  return (
    <>
      {segments.map((s, i) => (
        // All of many are not drawn at once: each is opened by its line.
        <Unfold
          key={s.id}
          open={segments.length <= FEW}
          title={[s.name, s.prefix, s.gateway && `gateway ${s.gateway}`, `${s.reservations.length} reserved`]
            .filter(Boolean)
            .join(" · ")}
        >
          <SegmentFields {...{ typing, i }} remove={() => set(segments.filter((o) => o.id !== s.id))} />
        </Unfold>
      ))}
      <NewSegment add={(one) => set([...segments, one])} />
    </>
  );
}

function SegmentFields({ typing, i, remove }: { typing: Typing<Site>; i: number; remove: () => void }) {
  const field = bound(typing);
  const purpose = field(`segments.${i}.purpose`, "Purpose");
  const name = typing.document.segments[i]?.name ?? "";
  return (
    <fieldset className="mb-4 grid gap-x-8 gap-y-3 border-b pb-4 sm:grid-cols-2 md:grid-cols-4 border-base-300">
      <legend className="sr-only">{name}</legend>
      <TextField {...field(`segments.${i}.name`, "Network")} />
      <ParsedField {...field(`segments.${i}.prefix`, "Subnet")} {...prefix} placeholder="10.61.10.0/24" />
      <ParsedField {...field(`segments.${i}.gateway`, "Gateway")} {...gateway} />
      <SelectField
        {...purpose}
        options={PURPOSES.map((p) => ({ value: p, text: term(p) }))}
        onChange={(p) => purpose.onChange(p as Segment["purpose"])}
      />
      <ParsedField {...field(`segments.${i}.nameServers`, "DNS servers")} {...addresses} />
      <ParsedField {...field(`segments.${i}.vlan`, "VLAN")} {...vlan} />
      <ParsedField {...field(`segments.${i}.mtu`, "MTU")} {...mtu} />
      <ParsedField {...field(`segments.${i}.servers`, "Addresses for servers")} {...servers} />
      <div className="sm:col-span-2">
        <span className="label">DHCP ranges</span>
        <EntryTable {...field(`segments.${i}.dhcp`, `DHCP ranges of ${name}`)} of={RANGE} />
      </div>
      <div className="col-span-full">
        <span className="label">Reservations</span>
        <EntryTable {...field(`segments.${i}.reservations`, `Reservations of ${name}`)} of={RESERVATION} />
      </div>
      <button type="button" className="link quiet justify-self-start" onClick={remove}>
        Remove network
      </button>
    </fieldset>
  );
}

function NewSegment({ add }: { add: (segment: Segment) => void }) {
  const [name, setName] = useKept("segment name", "");
  const [text, setText] = useKept("segment prefix", "");
  const fits = isPrefix(text.trim());
  return (
    <form
      className="grid max-w-3xl items-end gap-x-8 gap-y-3 sm:grid-cols-[1fr_14rem_auto]"
      onSubmit={(e) => {
        e.preventDefault();
        const id = `segment-${Date.now().toString(36)}`;
        const lists = { nameServers: [], dhcp: [], reservations: [] };
        const open = { vlan: null, gateway: null, mtu: null, servers: null, ...lists };
        add({ ...open, id, name: name.trim(), prefix: text.trim(), purpose: "management" });
        setName("");
        setText("");
      }}
    >
      <TextField path="new.name" label="Add a network" value={name} onChange={setName} />
      <TextField
        path="new.prefix"
        label="Subnet"
        value={text}
        onChange={setText}
        placeholder="10.61.10.0/24"
        hint={text.trim() !== "" && !fits ? "address and length, for example 10.61.10.0/24" : undefined}
      />
      <button type="submit" className="btn" disabled={name.trim() === "" || !fits}>
        Add network
      </button>
    </form>
  );
}
