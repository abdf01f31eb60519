"use client";

import { term } from "@/core/text";
import { SETTING_KEYS, SETTINGS } from "@/core/boot";
import { ROLES } from "@/core/machine";
import type { Site } from "@/core/site";
import { bound, type Typing } from "../draft/bound";
import { SelectField, TextField } from "../fields/fields";

const SETTING_OPTIONS = SETTING_KEYS.map((key) => ({ value: key as string, text: SETTINGS[key].title }));
const ROLE_OPTIONS = ROLES.map((r) => ({ value: r as string, text: term(r) }));

/** How a site wants its firmware set: one setting a row, for machines of a role or for every one. */
export function FirmwareRules({ typing }: { typing: Typing<Site> }) {
  const { firmware } = typing.document;
  const set = (next: Site["firmware"]): void => typing.type({ firmware: next });
  return (
    <>
      {firmware.length === 0 && (
        <p className="quiet mb-2">No site policy. Each build sheet uses its own settings.</p>
      )}
      {firmware.map((_, i) => (
        <Rule key={i} {...{ typing, i }} remove={() => set(firmware.filter((__, o) => o !== i))} />
      ))}
      <button
        type="button"
        className="btn"
        onClick={() => set([...firmware, { role: null, setting: "powerLoss", value: "on", why: "" }])}
      >
        Add setting
      </button>
    </>
  );
}

function Rule({ typing, i, remove }: { typing: Typing<Site>; i: number; remove: () => void }) {
  const field = bound(typing);
  const role = field(`firmware.${i}.role`, "Machines");
  return (
    <fieldset className="mb-3 grid items-end gap-x-6 gap-y-2 sm:grid-cols-[11rem_12rem_10rem_minmax(0,1fr)_auto]">
      <legend className="sr-only">Setting {i + 1}</legend>
      <SelectField
        {...role}
        value={role.value ?? ""}
        options={ROLE_OPTIONS}
        empty="all machines"
        onChange={(r) => role.onChange((r || null) as Site["firmware"][number]["role"])}
      />
      <SelectField {...field(`firmware.${i}.setting`, "Setting")} options={SETTING_OPTIONS} />
      <TextField {...field(`firmware.${i}.value`, "Required")} />
      <TextField {...field(`firmware.${i}.why`, "Reason")} />
      <button type="button" className="link quiet mb-1" onClick={remove}>
        Remove
      </button>
    </fieldset>
  );
}
