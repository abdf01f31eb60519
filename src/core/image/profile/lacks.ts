import { keysOf, own } from "../../text";
import type { Profile } from "./profile";

type Part = keyof Profile;

/** What a sheet cannot say or do without a part of its profile. */
const LACKS: Partial<Record<Part, string>> = {
  screens: "the steps of the installer, and with them the answer card, the run and its duration",
  firstBoot: "the first-boot tasks",
  requirements: "the comparison of the hardware with the requirements",
  partitioning: "the partitions of the target, and its unused space",
  sets: "additional pools and arrays, and their scripts",
  bootTargets: "whether the system supports flash cards, USB sticks or hardware arrays",
  zfsCache: "the memory that the ZFS cache (ARC) uses",
  recognise: "recognition of images by file name",
  identify: "recognition of the installed system, and with it all upgrades",
  passwords: "the password rules",
  accounts: "required accounts and reserved names",
  keyboards: "the keyboard layouts of the installer",
  management: "the management address of the finished system",
  upgrades: "all installation methods except a fresh installation",
  firmware: "the boot modes",
  layouts: "how the installer uses several drives",
  restart: "the restart time",
  support: "the end of support",
  netboot: "network installation",
  hostName: "whether a domain is required",
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
