"use client";

import Link from "next/link";
import { useState, type KeyboardEvent } from "react";
import {
  addressSortKey,
  addressText,
  nextFreeAddress,
  prefixWords,
  segmentPlan,
  type Segment,
  type SegmentStretch,
} from "@/core/network";
import { macOf, type Site } from "@/core/site";
import type { Typing } from "../draft/bound";
import { Ruled } from "../frame/page";
import { SlotText } from "./slot-text";
import { segmentLook } from "../network/segment-look";
import { ipv4Number, Stretches, stripWords } from "../network/segment-strip";

/** Who has an address, and where to read of it. */
export interface Taker {
  key: string;
  what: string;
  href: string | null;
}

const addressAt = (n: number): string =>
  [24, 16, 8, 0].map((shift) => String(Math.floor(n / 2 ** shift) % 256)).join(".");

const STEPS: Readonly<Record<string, number>> = {
  ArrowRight: 1,
  ArrowUp: 1,
  ArrowLeft: -1,
  ArrowDown: -1,
  PageUp: 16,
  PageDown: -16,
};

/**
 * A network as a strip of its addresses. A click or the arrow keys choose one; what it is stands below, and there it is
 * claimed or freed.
 */
export function AddressStrip({
  typing,
  segment,
  takers,
}: {
  typing: Typing<Site>;
  segment: Segment;
  takers: readonly Taker[];
}) {
  const [chosen, setChosen] = useState<string | null>(null);
  const { segments, devices } = typing.document;
  const taken = new Map([
    ...devices.flatMap((d) =>
      addressSortKey(d.address) ? [[addressSortKey(d.address)!, d.name] as const] : [],
    ),
    ...takers.map((t) => [t.key, t.what] as const),
  ]);
  const stretches = segmentPlan(segment, taken);
  const [first, last] = [ipv4Number(stretches[0]?.from ?? null), ipv4Number(stretches.at(-1)?.to ?? null)];
  const choose = (n: number): void => setChosen(addressAt(Math.min(last, Math.max(first, n))));
  const from = (): number =>
    chosen === null ? ipv4Number(nextFreeAddress(stretches, segment.servers)) : ipv4Number(chosen);
  const keys = (e: KeyboardEvent) => {
    const step = STEPS[e.key];
    if (step === undefined && e.key !== "Home" && e.key !== "End") return;
    e.preventDefault();
    if (step === undefined) return choose(e.key === "Home" ? first : last);
    choose(chosen === null ? Math.max(first, from()) : from() + step);
  };
  const at = stretches.find(
    (s) => ipv4Number(chosen) >= ipv4Number(s.from) && ipv4Number(chosen) <= ipv4Number(s.to),
  );
  const { colour } = segmentLook(segments, segment.id);
  return (
    <Ruled
      title={segment.name}
      note={[
        segment.prefix,
        segment.vlan && `VLAN ${segment.vlan}`,
        segment.purpose,
        `${prefixWords(segment.prefix)}${stretches.length > 0 ? `, ${freeIn(stretches)} free` : ": too many to draw"}`,
      ]
        .filter(Boolean)
        .join(" · ")}
    >
      {stretches.length > 0 && (
        <div
          className={`flex h-7 w-full cursor-pointer border border-current ${colour}`}
          role="slider"
          tabIndex={0}
          aria-label={`Addresses of ${segment.name}. ${stripWords(stretches, null)}`}
          aria-valuemin={first}
          aria-valuemax={last}
          aria-valuenow={chosen === null ? first : ipv4Number(chosen)}
          aria-valuetext={chosen === null ? "none chosen" : `${chosen}, ${at?.what ?? "outside"}`}
          onKeyDown={keys}
        >
          <Stretches
            {...{ stretches, mark: chosen }}
            onPick={(s, along) =>
              choose(ipv4Number(s.from) + Math.min(s.count - 1, Math.floor(along * s.count)))
            }
          />
        </div>
      )}
      {chosen !== null && at && <Chosen key={chosen} {...{ typing, segment, takers, at, address: chosen }} />}
    </Ruled>
  );
}

const freeIn = (stretches: readonly SegmentStretch[]): number =>
  stretches.filter((s) => s.use === "free").reduce((sum, s) => sum + s.count, 0);

/** One address: what it is, and the acts that it allows. */
function Chosen({
  typing,
  segment,
  takers,
  at,
  address,
}: {
  typing: Typing<Site>;
  segment: Segment;
  takers: readonly Taker[];
  at: SegmentStretch;
  address: string;
}) {
  const { segments, devices } = typing.document;
  const key = addressSortKey(address);
  const taker = takers.find((t) => t.key === key);
  const i = segments.findIndex((s) => s.id === segment.id);
  const path = `segments.${i}.reservations`;
  const reserved = segment.reservations.find((r) => addressSortKey(r.address) === key);
  const device = devices.find((d) => addressSortKey(d.address) === key);
  const free = () =>
    typing.type({
      ...(reserved && { [path]: segment.reservations.filter((r) => r !== reserved) }),
      ...(device && { devices: devices.map((d) => (d === device ? { ...d, address: "" } : d)) }),
    });
  const claim = (name: string, mac: string | null) =>
    typing.type(
      mac
        ? { [path]: [...segment.reservations, { mac, address, name }] }
        : { devices: [...devices, newThing(devices, name, address)] },
    );
  return (
    <div className="mt-2 flex flex-wrap items-end gap-x-5 gap-y-2" role="status">
      <span>
        <span className="value font-semibold">{addressText(key ?? "")}</span>{" "}
        {taker?.href ? (
          <Link className="link" href={taker.href}>
            {at.what}
          </Link>
        ) : (
          at.what
        )}
        {reserved && <span className="value quiet"> {reserved.mac}</span>}
      </span>
      {(reserved ?? device) && (
        <button type="button" className="btn" onClick={free}>
          Release
        </button>
      )}
      {!reserved && !device && !taker && (at.use === "free" || at.use === "pool") && (
        <ClaimForm claim={claim} />
      )}
    </div>
  );
}

const newThing = (devices: Site["devices"], name: string, address: string): Site["devices"][number] => ({
  ...{ id: `device-${Date.now().toString(36)}-${devices.length}`, name, kind: "other", address, place: "" },
  ...{ logIn: "not asked", portCount: 0, mtu: null, ports: [] },
});

/** For whom an address is: with a MAC it is reserved in DHCP, without one it belongs to a thing that is no machine. */
function ClaimForm({ claim }: { claim: (name: string, mac: string | null) => void }) {
  const [name, setName] = useState("");
  const [typed, setTyped] = useState("");
  const mac = macOf(typed.trim());
  const isWrong = typed.trim() !== "" && !mac;
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(e) => {
        e.preventDefault();
        claim(name.trim(), mac);
      }}
    >
      <SlotText label="Purpose" value={name} onChange={setName} />
      <SlotText
        label="MAC (for a reservation)"
        value={typed}
        onChange={setTyped}
        problem={isWrong ? "six pairs, for example 02:61:0a:00:00:09" : null}
      />
      <button type="submit" className="btn" disabled={name.trim() === "" || isWrong}>
        {mac ? "Reserve" : "Assign"}
      </button>
    </form>
  );
}
