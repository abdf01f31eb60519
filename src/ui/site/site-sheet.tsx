"use client";

import type { WrittenView } from "@/core/document";
import type { PlacedFinding } from "@/core/finding";
import { isTimeZone } from "@/core/identity";
import { sourceProblem } from "@/core/network";
import { CIRCUIT, PARAMETER, SITE_NAMES, SOURCE, type Site } from "@/core/site";
import { bound, type Typing } from "../draft/bound";
import { useWritten, type WrittenActions } from "../draft/use-written";
import { WrittenFoot } from "../draft/written-foot";
import { EntryTable } from "../fields/entry-table";
import { ChoiceField, ParsedField, TextField } from "../fields/fields";
import { checkedText, judgedText, numberField } from "../fields/numbers";
import { Page, Ruled } from "../frame/page";
import { siteSheets, SubSheets } from "../frame/sub-sheets";
import { TitleBlock, type TitleCell } from "../frame/title-block";
import { StripLegend } from "../network/segment-strip";
import { AddressStrip, type Taker } from "./address-strip";
import { FirmwareRules } from "./firmware-rules";
import { NamePatterns } from "./name-patterns";
import { OpenDoors, type OpenDoor } from "./open-doors";
import { Segments } from "./segments";
import { SiteFindings } from "./site-findings";

const address = judgedText(sourceProblem);
const timeZone = checkedText(isTimeZone, "not a time zone of the IANA list; examples: Europe/London, UTC");
const megabits = numberField(1e6, "a number of Mbit/s");
const milliseconds = numberField(1e-3, "a number of milliseconds");
const price = numberField(1, "a price above 0");

/** A name without spaces around it. */
const plain = <F extends { onChange: (text: string) => void }>(field: F): F => ({
  ...field,
  onChange: (text: string) => field.onChange(text.trim()),
});

/** A site: its usual answers, its link, its networks, and what stands on them. It saves by itself. */
export function SiteSheet({
  id,
  given,
  actions,
  cells,
  takers,
  findings,
  doors,
}: {
  id: string;
  given: WrittenView<Site>;
  actions: WrittenActions<Site>;
  cells: TitleCell[];
  /** Machines and sheets that have addresses here. */
  takers: readonly Taker[];
  findings: readonly PlacedFinding[];
  doors: readonly OpenDoor[];
}) {
  const draft = useWritten("site", id, given, actions);
  const { document: site } = draft;
  return (
    <>
      <Page title={site.name} lead={site.room}>
        <SubSheets sheets={siteSheets(id)} open={`/sites/${id}`} />
        <SiteFindings findings={findings} />
        {site.segments.map((segment) => (
          <AddressStrip key={segment.id} {...{ segment, takers }} typing={draft} />
        ))}
        {site.segments.length > 0 && (
          <div className="-mt-3 mb-5">
            <StripLegend mark={null} />
          </div>
        )}
        <OpenDoors doors={doors} />
        <Ruled title="Site defaults">
          <UsualAnswers typing={draft} />
        </Ruled>
        <Ruled title="Packages" note="package sources of this site by OS family; build sheets offer theirs">
          <Packages typing={draft} />
        </Ruled>
        <Ruled
          title="Host names"
          note="# stands for a number, ## for two digits, @ for a letter; each build sheet offers the next free name"
        >
          <NamePatterns typing={draft} />
        </Ruled>
        <Ruled
          title="Parameters"
          note="commands and kernel command lines refer to one as {parameter.name}; a sheet overrides its site, and a machine overrides its sheet"
        >
          <EntryTable {...bound(draft)("parameters", "Parameters")} of={PARAMETER} />
        </Ruled>
        <Ruled title="Networks">
          <Segments typing={draft} />
        </Ruled>
        <Ruled
          title="Power"
          note="circuits with the load that the site's own electrician allows; what a circuit may carry is a matter of local codes"
        >
          <Power typing={draft} />
        </Ruled>
        <Ruled
          title="Firmware settings"
          note="policy of this site for its machines, by role; build sheets and machines are compared with it"
        >
          <FirmwareRules typing={draft} />
        </Ruled>
      </Page>
      <TitleBlock cells={[...cells, { label: "Time zone", value: site.timeZone }]}>
        <WrittenFoot what="site" draft={draft} names={SITE_NAMES} timeZone={site.timeZone} />
      </TitleBlock>
    </>
  );
}

function UsualAnswers({ typing }: { typing: Typing<Site> }) {
  const field = bound(typing);
  const { link } = typing.document;
  const setLink = (next: Site["link"]): void => typing.type({ link: next });
  return (
    <div className="grid gap-x-8 gap-y-3 sm:grid-cols-2 md:grid-cols-3">
      <TextField {...field("name", "Name")} />
      <TextField {...field("room", "Room")} />
      <TextField {...plain(field("domain", "Domain"))} />
      <ParsedField {...field("timeZone", "Time zone")} {...timeZone} />
      <TextField {...plain(field("locale", "Locale"))} />
      <TextField {...plain(field("keyboard", "Keyboard layout"))} />
      <ChoiceField
        {...field("addressSchool", "Server addresses")}
        options={[
          { value: "fixed", text: "static" },
          { value: "reserved", text: "DHCP reservation" },
        ]}
      />
      <ChoiceField
        {...field("networkBoot", "Network boot")}
        options={[
          { value: "off", text: "off" },
          { value: "on", text: "on, for armed machines" },
        ]}
      />
      <ParsedField
        path="link.bitsPerSecond"
        label="Link speed of remote consoles, Mbit/s"
        value={link?.bitsPerSecond ?? null}
        {...megabits}
        onChange={(bitsPerSecond) =>
          setLink(
            bitsPerSecond === null
              ? null
              : { bitsPerSecond, roundTripSeconds: link?.roundTripSeconds ?? null },
          )
        }
      />
      <ParsedField
        path="link.roundTripSeconds"
        label="Round-trip time, ms"
        value={link?.roundTripSeconds ?? null}
        format={milliseconds.format}
        parse={(text) =>
          text.trim() !== "" && !link ? { problem: "enter the link speed first" } : milliseconds.parse(text)
        }
        onChange={(roundTripSeconds) => link && setLink({ ...link, roundTripSeconds })}
      />
    </div>
  );
}

function Packages({ typing }: { typing: Typing<Site> }) {
  const field = bound(typing);
  return (
    <div className="grid items-start gap-x-8 gap-y-3 lg:grid-cols-[1fr_20rem]">
      <EntryTable {...field("sources", "Package sources")} of={SOURCE} />
      <ParsedField {...field("proxy", "Proxy")} {...address} placeholder="none" />
    </div>
  );
}

function Power({ typing }: { typing: Typing<Site> }) {
  const { tariff } = typing.document;
  const currency = tariff?.currency ?? "£";
  return (
    <div className="grid items-start gap-x-8 gap-y-3 sm:grid-cols-[1fr_10rem_10rem]">
      <EntryTable {...bound(typing)("circuits", "Circuits")} of={CIRCUIT} />
      <ParsedField
        path="tariff.perKilowattHour"
        label="Electricity price per kWh"
        value={tariff?.perKilowattHour ?? null}
        {...price}
        onChange={(perKilowattHour) =>
          typing.type({ tariff: perKilowattHour === null ? null : { perKilowattHour, currency } })
        }
      />
      <TextField
        path="tariff.currency"
        label="Currency"
        value={currency}
        maxLength={8}
        onChange={(next) => tariff && typing.type({ tariff: { ...tariff, currency: next } })}
      />
    </div>
  );
}
