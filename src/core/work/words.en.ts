import { formatExactBytes } from "../units";
import { modeWords } from "./mode";
import type { Sight, SightOf } from "./sight";

const LABELS = { "serial number": "Serial number", name: "The label", "asset tag": "Asset tag" } as const;

const BOOTS = {
  "installed system": "The system boots by itself",
  installer: "The first screen of the installer again",
  "no device": "No boot device found",
} as const;

const OUT: Readonly<Record<SightOf<"medium">["medium"], string>> = {
  "virtual media": "No media connected",
  stick: "No USB stick in any port",
  disc: "An empty drive",
  network: "No entry for the MAC of this machine",
};

function mediumWords({ medium, is, holds, mac }: SightOf<"medium">): string {
  if (is === "out") return OUT[medium];
  return medium === "network"
    ? `A request from ${mac ?? "the MAC of the machine"}`
    : `${holds} is shown as connected`;
}

/** What a person looks for, in one line. */
export function sightWords(sight: Sight): string {
  switch (sight.of) {
    case "screen":
    case "output":
      return sight.shows;
    case "label":
      return `${LABELS[sight.part]} ${sight.reads}`;
    case "hardware":
      return `Memory and processors as recorded for ${sight.machine}`;
    case "drive":
      return `${sight.look} – ${sight.holds}`;
    case "device":
      return `${sight.name}, ${sight.sizeBytes ? formatExactBytes(sight.sizeBytes) : "size not recorded"}`;
    case "checksum":
      return sight.value;
    case "medium":
      return mediumWords(sight);
    case "boot entry":
      return `${sight.listed ? `"${sight.listed}"` : `An entry for ${sight.name}`} marked ${modeWords(sight.mode)}`;
    case "setting":
      return sight.is;
    case "boot":
      return BOOTS[sight.ends];
    case "system":
      return `${sight.name} on the console`;
    case "address":
      return sight.answers;
    case "boot service":
      return sight.tells === "armed"
        ? "The machine is listed as waiting under Network installations"
        : `The boot service lists ${sight.machine}`;
    case "acceptance":
      return "All lines of the acceptance are resolved";
    case "statement":
      return sight.says;
  }
}
