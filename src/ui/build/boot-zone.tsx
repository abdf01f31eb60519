import dynamic from "next/dynamic";
import { ChoiceField, TextField } from "../fields/fields";
import { BootEntries } from "./boot-entries";
import { BootSettings } from "./boot-settings";
import { BootPathPicture } from "./boot-picture";
import type { ZoneProps } from "./zone-props";

const BootSchools = dynamic(() => import("./boot-schools").then((m) => m.BootSchools), {
  loading: () => <p className="quiet">…</p>,
});

const BootCards = dynamic(() => import("./boot-cards").then((m) => m.BootCards), {
  loading: () => <p className="quiet">…</p>,
});

const MODES = [
  { value: "uefi", text: "UEFI" },
  { value: "legacy", text: "legacy BIOS" },
] as const;
const STARTS = [
  { value: "one-time boot", text: "one-time boot" },
  { value: "media first in the boot order", text: "permanent boot order" },
] as const;
const SECURE = [
  { value: "on", text: "on" },
  { value: "off to install", text: "off for the installation, then on again" },
  { value: "off", text: "off" },
] as const;

export function BootZone(props: ZoneProps) {
  const { view, sheet, edit } = props;
  return (
    <div className="space-y-4">
      {view.boot && <BootPathPicture picture={view.boot} sheet={sheet} edit={edit} />}
      <BootFields {...props} />
      {view.boot && (
        <>
          <BootSettings
            lines={view.boot.settings}
            build={view.build.id}
            marks={props.marks("boot.settings")}
            sheet={sheet}
            edit={edit}
          />
          {view.boot.cards && (
            <BootCards
              module={view.boot.cards}
              sheet={sheet}
              edit={edit}
              marks={props.marks}
              timeZone={view.context.site?.timeZone ?? "UTC"}
            />
          )}
          <BootEntries entries={view.boot.entries} />
          <BootSchools schools={view.boot.schools} sheet={sheet} edit={edit} />
        </>
      )}
    </div>
  );
}

/** The same choices as fields. */
function BootFields({ view, sheet, edit, marks }: ZoneProps) {
  const found = view.context.machine?.document.facts.firmware?.mode;
  return (
    <div className="grid gap-x-8 gap-y-3 md:grid-cols-2">
      <ChoiceField
        path="boot.mode"
        label="Boot mode"
        marks={marks("boot.mode")}
        value={sheet.boot.mode}
        options={MODES}
        onChange={(v) => edit({ "boot.mode": v })}
        hint={found && `the machine was found in ${found === "uefi" ? "UEFI" : "legacy BIOS"} mode`}
      />
      <ChoiceField
        path="boot.start"
        label="Media boot"
        marks={marks("boot.start")}
        value={sheet.boot.start}
        options={STARTS}
        onChange={(v) => edit({ "boot.start": v })}
      />
      {sheet.boot.mode === "uefi" && (
        <ChoiceField
          path="boot.secureBoot"
          label="Secure Boot"
          marks={marks("boot.secureBoot")}
          value={sheet.boot.secureBoot}
          options={SECURE}
          onChange={(v) => edit({ "boot.secureBoot": v })}
        />
      )}
      <TextField
        path="boot.menuKey"
        label="Boot menu key"
        marks={marks("boot.menuKey")}
        value={sheet.boot.menuKey}
        placeholder="as shown at power-on"
        onChange={(v) => edit({ "boot.menuKey": v })}
      />
    </div>
  );
}
