import type { Way } from "../../media";
import { modeWords, type CommonParts, type EffectOf, type Sight } from "../../work";

/** When a key is taken, counted from power on. */
export const whenTaken = (seconds: number | null | undefined): string =>
  seconds ? `about ${seconds} s after power-on` : "when the vendor's logo appears";

/** What may be set for the installation only, and how it is put back. */
export const SECURE_OFF = "Secure Boot off";
export const NETWORK_ON = "network boot on";
export const WAY_BACK: Readonly<Record<string, string>> = {
  [SECURE_OFF]: "Secure Boot on",
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
  ...(secureBoot && !forInstall.includes(SECURE_OFF) ? [`Secure Boot ${secureBoot}.`] : []),
  ...forInstall.map((s) => `For the installation only: ${s}. Record the old value.`),
  ...(virtualisation ? ["Virtualisation and IOMMU on."] : []),
  order.length > 0
    ? `Permanent boot order: ${order.join(", then ")}. Record the old order.`
    : "Do not change the permanent boot order.",
];

type Words = Pick<CommonParts, "title" | "do" | "sees">;

/** How a medium is brought to the machine, by its kind. */
export function insertWords({ medium, name, holds, mac }: EffectOf<"insert medium">): Words {
  const sees: Sight[] = [{ of: "medium", medium, is: "in", holds, mac }];
  const words: Record<Way, Words> = {
    "virtual media": {
      title: "Map the image as a virtual CD",
      do: ["Map it read-only, and keep this session open until the installation ends."],
      sees,
    },
    stick: {
      title: `Connect ${name}`,
      do: [`Connect ${name} to a port of the machine itself, not of a hub or screen.`],
      sees: [],
    },
    disc: { title: "Insert the optical disc", do: ["Wait until the drive is quiet."], sees: [] },
    network: {
      title: "Check that the boot service responds",
      do: ["Open its log next to the console: the request of the machine must appear there."],
      sees,
    },
  };
  return words[medium];
}

/** How a medium is taken away again, by its kind. */
export function removeWords({
  medium,
  name,
}: EffectOf<"remove medium">): Pick<CommonParts, "title" | "sees"> {
  const titles: Record<Way, string> = {
    "virtual media": "Unmap the virtual CD",
    stick: `Disconnect ${name}`,
    disc: "Remove the optical disc",
    network: "Remove the machine from the boot service",
  };
  return { title: titles[medium], sees: [{ of: "medium", medium, is: "out", holds: "", mac: null }] };
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
  const sees: Sight[] = [{ of: "boot entry", name, listed, mode }];
  if (!once)
    return {
      title: `Put ${name} first in the boot order`,
      do: ["Undo this order before the first restart."],
      sees,
    };
  return {
    title: `Choose ${name} for the next boot only`,
    do: [
      `Restart and press ${key}; choose ${listed ? `"${listed}"` : name} in ${modeWords(mode)} mode.`,
      ...(listed
        ? [`This is the name of the ${name} in this firmware; a similar line is another device.`]
        : []),
      ...(menuSeconds ? [`The menu of the medium waits ${menuSeconds} s, then continues by itself.`] : []),
      ...unknown,
    ],
    sees,
  };
}
