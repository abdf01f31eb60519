import { modeWords, type Way } from "../../media";
import type { EffectOf, Step } from "../../stage";

/** When a key is taken, counted from power on. */
export const whenTaken = (seconds: number | null | undefined): string =>
  seconds ? `about ${seconds} s after power on` : "when the maker's logo shows";

/** What may be set for the installation only, and how it is put back. */
export const SECURE_OFF = "secure boot off";
export const NETWORK_ON = "network boot on";
export const WAY_BACK: Readonly<Record<string, string>> = {
  [SECURE_OFF]: "secure boot on",
  [NETWORK_ON]: "network boot off",
};

export const firmwareWords = ({
  mode,
  secureBoot,
  virtualisation,
  forInstall,
  order,
}: EffectOf<"set firmware">): string[] => [
  `Boot mode ${modeWords(mode)}.`,
  ...(secureBoot && !forInstall.includes(SECURE_OFF) ? [`Secure boot ${secureBoot}.`] : []),
  ...forInstall.map((s) => `For the installation only: ${s}. Write down how it stood.`),
  ...(virtualisation ? ["Virtualisation and the IOMMU on."] : []),
  order.length > 0
    ? `Permanent boot order: ${order.join(", then ")}. Write down the order that stood there before.`
    : "Leave the permanent boot order as it is.",
];

type Words = Pick<Step, "title" | "do" | "see">;

/** How a medium is brought to the machine, by its kind. */
export function insertWords({ medium, name, holds, mac }: EffectOf<"insert medium">): Words {
  const words: Record<Way, Words> = {
    "virtual media": {
      title: "Map the image as virtual CD",
      do: ["Map read-only, and keep this session open until the installation has ended."],
      see: [`${holds} is shown as connected`],
    },
    stick: {
      title: `Put in ${name}`,
      do: [`Put ${name} into a port of the machine itself, not of a hub or screen.`],
      see: [],
    },
    disc: { title: "Put the disc in", do: ["Wait until the drive is quiet."], see: [] },
    network: {
      title: "Make sure that the boot service answers",
      do: ["Open its log beside the console: the machine's request must appear there."],
      see: [`A request from ${mac ?? "the machine's MAC"}`],
    },
  };
  return words[medium];
}

/** How a medium is taken away again, by its kind. */
export function removeWords({ medium, name }: EffectOf<"remove medium">): Pick<Step, "title" | "see"> {
  const words: Record<Way, Pick<Step, "title" | "see">> = {
    "virtual media": { title: "Unmap the virtual CD", see: ["No media connected"] },
    stick: { title: `Take ${name} out`, see: ["No stick in any port"] },
    disc: { title: "Take the disc out", see: ["An empty drive"] },
    network: { title: "Take the machine off the boot service", see: ["No entry for this machine's MAC"] },
  };
  return words[medium];
}

/**
 * How the next start is made one from the medium; `key` opens the boot menu, `listed` is how the firmware's own list calls
 * the medium, `menuSeconds` is how long the medium waits, `unknown` what is to be noted since nobody knows it.
 */
export function startWords(
  { name, mode, once }: EffectOf<"start next from">,
  key: string,
  listed: string | null,
  menuSeconds: number | null,
  unknown: readonly string[] = [],
): Words {
  const line = listed ? `"${listed}"` : `An entry for ${name}`;
  const see = [`${line} marked ${modeWords(mode)}`];
  if (!once)
    return {
      title: `Put ${name} first in the boot order`,
      do: ["Remember that this order must be undone before the first restart."],
      see,
    };
  return {
    title: `Choose ${name} for the next start only`,
    do: [
      `Restart and press ${key}; choose ${listed ? `"${listed}"` : name} in ${modeWords(mode)} mode.`,
      ...(listed
        ? [`That is how this firmware calls the ${name}; a line that only looks like it is another device.`]
        : []),
      ...(menuSeconds ? [`The medium's own menu waits ${menuSeconds} s, then it goes on by itself.`] : []),
      ...unknown,
    ],
    see,
  };
}
