"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Segment } from "@/core/network";
import type { Problem } from "@/core/result";
import type { Result } from "@/core/result";
import {
  formatCircuits,
  formatOccupied,
  formatRanges,
  formatReservations,
  parseAddresses,
  parseCircuits,
  parseOccupied,
  parseRanges,
  parseReservations,
  type Site,
} from "@/core/site";
import { ParsedField, TextField, ChoiceField } from "../fields/fields";
import { Problems } from "../frame/problems";
import { Ruled } from "../frame/page";

const PURPOSES: Segment["purpose"][] = ["management", "uplink", "storage", "guests", "isolated lab"];

/** A list that people type, and what is wrong with it; what does not fit stays in its field. */
const listed = <T,>(format: (value: T) => string, parse: (text: string) => Result<T>) => ({
  format,
  parse(text: string): { value: T } | { problem: string } {
    const read = parse(text);
    return read.ok ? { value: read.value } : { problem: read.problems.map((p) => p.message).join("; ") };
  },
});
const addresses = listed((l: string[]) => l.join(", "), parseAddresses);
const ranges = listed(formatRanges, parseRanges);
const reservations = listed(formatReservations, parseReservations);
const occupied = listed(formatOccupied, parseOccupied);
const circuits = listed(formatCircuits, parseCircuits);
/** A field that says that it cannot be read would be left out without a word. */
const UNREAD =
  "Some fields cannot be read; each says why. Nothing was kept, and nothing that you typed is lost.";

/** A site's usual answers, its link, and its networks. Saved as a whole, with the version that it was read in. */
export function SiteForm({
  initial,
  version,
  save,
}: {
  initial: Site;
  version: number;
  save: (
    version: number,
    site: Site,
  ) => Promise<{ ok: true; value: number } | { ok: false; problems: Problem[] }>;
}) {
  const router = useRouter();
  const [site, setSite] = useState(initial);
  const [at, setAt] = useState(version);
  const [problems, setProblems] = useState<Problem[]>([]);
  const [saved, setSaved] = useState(false);
  const set = (part: Partial<Site>) => {
    setSaved(false);
    setSite({ ...site, ...part });
  };
  const setSegment = (i: number, part: Partial<Segment>) =>
    set({ segments: site.segments.map((s, j) => (j === i ? { ...s, ...part } : s)) });
  const addSegment = () =>
    set({
      segments: [
        ...site.segments,
        {
          id: `segment-${Date.now().toString(36)}`,
          name: "",
          purpose: "management",
          vlan: null,
          prefix: "",
          gateway: null,
          nameServers: [],
          dhcp: [],
          reservations: [],
        },
      ],
    });
  return (
    <form
      onSubmit={async (e) => {
        e.preventDefault();
        setSaved(false);
        if (e.currentTarget.querySelector('[aria-invalid="true"]')) return setProblems([{ message: UNREAD }]);
        const answer = await save(at, site);
        setProblems(answer.ok ? [] : answer.problems);
        setSaved(answer.ok);
        if (answer.ok) {
          setAt(answer.value);
          router.refresh();
        }
      }}
    >
      <Ruled title="Usual answers">
        <div className="grid gap-x-8 gap-y-3 sm:grid-cols-3">
          <TextField path="name" label="Name" value={site.name} onChange={(name) => set({ name })} />
          <TextField path="room" label="Room" value={site.room} onChange={(room) => set({ room })} />
          <TextField
            path="domain"
            label="Domain"
            value={site.domain}
            onChange={(domain) => set({ domain: domain.trim() })}
          />
          <TextField
            path="timeZone"
            label="Time zone"
            value={site.timeZone}
            onChange={(timeZone) => set({ timeZone: timeZone.trim() })}
          />
          <TextField
            path="locale"
            label="Locale"
            value={site.locale}
            onChange={(locale) => set({ locale: locale.trim() })}
          />
          <TextField
            path="keyboard"
            label="Keyboard"
            value={site.keyboard}
            onChange={(keyboard) => set({ keyboard: keyboard.trim() })}
          />
          <ChoiceField
            path="addressSchool"
            label="Server addresses"
            value={site.addressSchool}
            options={[
              { value: "fixed", text: "fixed" },
              { value: "reserved", text: "reserved" },
            ]}
            onChange={(addressSchool) => set({ addressSchool })}
          />
          <ParsedField
            path="link.bits"
            label="Link of remote consoles, Mbit/s"
            value={site.link?.bitsPerSecond ?? null}
            format={(n) => (n === null ? "" : String(n / 1e6))}
            parse={(t) =>
              t.trim() === ""
                ? { value: null }
                : Number(t) > 0
                  ? { value: Number(t) * 1e6 }
                  : { problem: "a number of Mbit/s" }
            }
            onChange={(n) =>
              set({
                link:
                  n === null
                    ? null
                    : { bitsPerSecond: n, roundTripSeconds: site.link?.roundTripSeconds ?? null },
              })
            }
          />
          <ParsedField
            path="link.trip"
            label="Round trip, ms"
            value={site.link?.roundTripSeconds ?? null}
            format={(n) => (n === null ? "" : String(Math.round(n * 1000)))}
            parse={(t) =>
              t.trim() === ""
                ? { value: null }
                : !site.link
                  ? { problem: "write the rate of the link first" }
                  : Number(t) > 0
                    ? { value: Number(t) / 1000 }
                    : { problem: "a number of milliseconds" }
            }
            onChange={(n) => site.link && set({ link: { ...site.link, roundTripSeconds: n } })}
          />
        </div>
      </Ruled>
      <Ruled title="Networks">
        {site.segments.map((s, i) => (
          <fieldset
            key={s.id}
            className="mb-4 grid gap-x-8 gap-y-3 border-b pb-4 sm:grid-cols-4 border-base-300"
          >
            <legend className="sr-only">{s.name || "new segment"}</legend>
            <TextField
              path={`s${i}.name`}
              label="Segment"
              value={s.name}
              onChange={(name) => setSegment(i, { name })}
            />
            <TextField
              path={`s${i}.prefix`}
              label="Prefix"
              value={s.prefix}
              placeholder="10.61.10.0/24"
              onChange={(prefix) => setSegment(i, { prefix: prefix.trim() })}
            />
            <TextField
              path={`s${i}.gateway`}
              label="Gateway"
              value={s.gateway ?? ""}
              onChange={(g) => setSegment(i, { gateway: g.trim() || null })}
            />
            <label>
              <span className="label">Purpose</span>
              <select
                className="select"
                value={s.purpose}
                onChange={(e) => setSegment(i, { purpose: e.target.value as Segment["purpose"] })}
              >
                {PURPOSES.map((p) => (
                  <option key={p}>{p}</option>
                ))}
              </select>
            </label>
            <ParsedField
              path={`s${i}.dns`}
              label="Name servers"
              value={s.nameServers}
              {...addresses}
              onChange={(nameServers) => setSegment(i, { nameServers })}
            />
            <ParsedField
              path={`s${i}.dhcp`}
              label="DHCP ranges"
              value={s.dhcp}
              {...ranges}
              onChange={(dhcp) => setSegment(i, { dhcp })}
              placeholder="10.61.10.100 - 10.61.10.199"
            />
            <ParsedField
              path={`s${i}.vlan`}
              label="VLAN"
              value={s.vlan}
              format={(n) => (n === null ? "" : String(n))}
              parse={(t) =>
                t.trim() === ""
                  ? { value: null }
                  : Number.isInteger(Number(t)) && Number(t) > 0 && Number(t) < 4095
                    ? { value: Number(t) }
                    : { problem: "1 to 4094" }
              }
              onChange={(vlan) => setSegment(i, { vlan })}
            />
            <ParsedField
              path={`s${i}.reservations`}
              label="Reservations: MAC, address, name a line"
              rows={2}
              value={s.reservations}
              {...reservations}
              onChange={(all) => setSegment(i, { reservations: all })}
            />
            <button
              type="button"
              className="link quiet justify-self-start"
              onClick={() => set({ segments: site.segments.filter((_, j) => j !== i) })}
            >
              remove this segment
            </button>
          </fieldset>
        ))}
        <button type="button" className="link" onClick={addSegment}>
          add a segment
        </button>
      </Ruled>
      <Ruled
        title="Addresses of other things"
        note="switches, controllers, printers: one a line, address and what it is"
      >
        <ParsedField
          path="occupied"
          label="Address, and what it is"
          rows={3}
          value={site.occupied}
          {...occupied}
          onChange={(all) => set({ occupied: all })}
        />
      </Ruled>
      <Ruled
        title="Power"
        note="circuits with the load that the site's own electrician allows; what a circuit may carry is a matter of local codes"
      >
        <div className="grid gap-x-8 gap-y-3 sm:grid-cols-[1fr_10rem_10rem]">
          <ParsedField
            path="circuits"
            label="Circuits: name and watts a line"
            rows={3}
            value={site.circuits}
            {...circuits}
            onChange={(all) => set({ circuits: all })}
          />
          <ParsedField
            path="tariff.price"
            label="Price of a kWh"
            value={site.tariff?.perKilowattHour ?? null}
            format={(n) => (n === null ? "" : String(n))}
            parse={(t) =>
              t.trim() === ""
                ? { value: null }
                : Number(t) > 0
                  ? { value: Number(t) }
                  : { problem: "a price above 0" }
            }
            onChange={(n) =>
              set({
                tariff: n === null ? null : { perKilowattHour: n, currency: site.tariff?.currency ?? "£" },
              })
            }
          />
          <TextField
            path="tariff.currency"
            label="Currency"
            value={site.tariff?.currency ?? "£"}
            maxLength={8}
            onChange={(currency) => site.tariff && set({ tariff: { ...site.tariff, currency } })}
          />
        </div>
      </Ruled>
      <Problems problems={problems} />
      <button type="submit" className="btn btn-primary">
        Keep
      </button>
      {saved && (
        <span role="status" className="quiet ml-3">
          kept
        </span>
      )}
    </form>
  );
}
