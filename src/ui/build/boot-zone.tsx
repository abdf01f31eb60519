import { mediumWords } from "@/core/media";
import { ChoiceField, TextField } from "../fields/fields";
import type { ZoneProps } from "./zone-props";

const MODES = [
  { value: "uefi", text: "UEFI" },
  { value: "legacy", text: "legacy" },
] as const;
const STARTS = [
  { value: "one-time boot", text: "one-time boot" },
  { value: "media first in the boot order", text: "media first for good" },
] as const;
const SWITCH = [
  { value: "on", text: "on" },
  { value: "off", text: "off" },
] as const;

export function BootZone({ view, sheet, edit, marks }: ZoneProps) {
  const found = view.context.machine?.document.facts.firmware?.mode;
  return (
    <div className="grid gap-x-8 gap-y-3 sm:grid-cols-2">
      <div className="space-y-3">
        <ChoiceField
          path="boot.mode"
          label="Boot mode"
          marks={marks("boot.mode")}
          value={sheet.boot.mode}
          options={MODES}
          onChange={(v) => edit({ "boot.mode": v })}
          hint={found && `the machine was found in ${found === "uefi" ? "UEFI" : "legacy"} mode`}
        />
        <ChoiceField
          path="boot.start"
          label="How the media starts"
          marks={marks("boot.start")}
          value={sheet.boot.start}
          options={STARTS}
          onChange={(v) => edit({ "boot.start": v })}
        />
        {sheet.boot.mode === "uefi" && (
          <ChoiceField
            path="boot.secureBoot"
            label="Secure boot"
            marks={marks("boot.secureBoot")}
            value={sheet.boot.secureBoot}
            options={SWITCH}
            onChange={(v) => edit({ "boot.secureBoot": v })}
          />
        )}
        <TextField
          path="boot.menuKey"
          label="Key of the boot menu"
          marks={marks("boot.menuKey")}
          value={sheet.boot.menuKey}
          placeholder="as the maker's logo says"
          onChange={(v) => edit({ "boot.menuKey": v })}
        />
      </div>
      <BootPath sheet={sheet} />
    </div>
  );
}

/** What the firmware starts now, after the installer's restart, and after a power loss a month later. */
function BootPath({ sheet }: Pick<ZoneProps, "sheet">) {
  const media = mediumWords[sheet.image.way];
  const forGood = sheet.boot.start === "media first in the boot order";
  const rows = [
    { when: "now", first: media, ends: "the installer starts", bad: false },
    forGood
      ? { when: "after the install", first: media, ends: "the installer starts again", bad: true }
      : { when: "after the install", first: "target", ends: "the new system starts", bad: false },
    forGood
      ? {
          when: "power loss, later",
          first: `${media}, if still there`,
          ends: "the installer, or the system",
          bad: true,
        }
      : { when: "power loss, later", first: "target", ends: "the new system starts", bad: false },
  ];
  return (
    <figure>
      <figcaption className="label mb-1">What the firmware starts, if the media stays in</figcaption>
      <table className="w-full">
        <tbody>
          {rows.map((r) => (
            <tr key={r.when} style={r.bad ? { color: "var(--color-error)" } : undefined}>
              <td className="quiet py-1 pr-2 whitespace-nowrap">{r.when}</td>
              <td className="border px-2 py-0.5 whitespace-nowrap border-current">{r.first}</td>
              <td className="w-9">
                <svg
                  viewBox="0 0 36 12"
                  className="block h-3 w-9"
                  aria-hidden="true"
                  fill="none"
                  stroke="currentColor"
                  strokeWidth="1.5"
                >
                  {r.bad ? (
                    <path d="M0 6 H22 a4 4 0 1 0 -4 -4 M30 6 H36" strokeDasharray="3 2" />
                  ) : (
                    <path d="M0 6 H33 M28 2 L34 6 L28 10" />
                  )}
                </svg>
              </td>
              <td className={r.bad ? "font-semibold" : ""}>{r.ends}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </figure>
  );
}
