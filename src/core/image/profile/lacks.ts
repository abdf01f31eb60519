import { keysOf, own } from "../../text";
import type { Profile } from "./profile";

type Part = keyof Profile;

/** What a sheet cannot say or do without a part of its profile. */
const LACKS: Partial<Record<Part, string>> = {
  screens: "the steps of the installer, and with them the answer card, the run and its time",
  firstBoot: "what is done at the first start",
  requirements: "the comparison of the machine with what is asked for",
  partitioning: "the drawing of the partitions, and what is left of the target",
  sets: "pools and arrays beside the target, and their script",
  bootTargets: "whether the system may stand on cards, sticks or arrays",
  zfsCache: "the memory that the cache of ZFS takes",
  recognise: "images that are recognised by their names",
  identify: "whether the system that was read is this one, and with it every way of upgrading",
  passwords: "the rules for passwords",
  accounts: "which accounts are needed, and which names are kept",
  keyboards: "whether the installer offers the keyboard",
  management: "where the finished system is reached",
  upgrades: "every road but a fresh installation",
  firmware: "in which boot modes it starts",
  layouts: "how its installer lays the system over drives",
  restart: "how long a restart takes",
  support: "until when it is supported",
  netboot: "the installation over the network",
  hostName: "whether a domain is needed",
};

const isEmpty = (value: unknown): boolean =>
  value === null || value === undefined || (Array.isArray(value) && value.length === 0);

/** Parts that a profile may leave empty for good: nothing is lacking then. */
const MAY_BE_EMPTY: readonly Part[] = ["keyboards", "zfsCache", "netboot"];

/** What a sheet made from a sound profile will lack, since the profile says nothing of it. */
export const lacksOf = (profile: Profile): string[] =>
  keysOf(LACKS).flatMap((part) => {
    const isOpen = isEmpty(profile[part]) || (part === "support" && profile.support.ends === null);
    return isOpen && !MAY_BE_EMPTY.includes(part) ? [LACKS[part] ?? part] : [];
  });

/** What a sheet would lack by a mistake at a path such as "screens.3.late"; null where nothing of a sheet hangs on it. */
export const lackedBy = (path: string): string | null => own(LACKS, path.split(".")[0] ?? "") ?? null;
