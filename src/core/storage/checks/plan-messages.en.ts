import { message } from "../../finding";

/** The words of the rules about the parts that the target is cut into. */
export const PLAN_MESSAGES = {
  "storage.idle": message(
    "Most of the drive would stand idle",
    "Left to itself the installer of {profile} takes {used} and leaves {idle} of {whole} idle.",
    "Choose the largest size on its page, or take the rest once the system runs; the sheet has the commands.",
    "A default root volume was accepted, and four fifths of the drive stood idle until a backup had filled it.",
  ),
  "storage.target-share": message(
    "Most of the target goes to copies",
    "A {layout} of {count} drives: {usable} of {whole} can be used.",
    "Take fewer drives for the system, or say as the reason of a waiver why so many copies are wanted.",
    "Four drives were put into one mirror by the installer's default; it was noticed when data had to go somewhere.",
  ),
  "storage.table-limit": message(
    "The table does not reach the whole drive",
    "{profile} makes a table of the old kind for a drive of {size}: {fault}.",
    "Start in UEFI mode, or choose a smaller drive.",
    "One tool refuses such a drive, another makes 2 TiB of it and says nothing.",
  ),
  "storage.efi-small": message(
    "An EFI system partition that cannot be FAT32",
    "{profile} makes an EFI system partition of {size}; in clusters of one sector it has {clusters}, and FAT32 begins at 65,525.",
    "Make it {wanted} or larger, or choose a drive of 512 bytes to a sector.",
    "Firmware that goes by the number of clusters reads it as FAT16 and finds no loader.",
  ),
  "storage.legacy-sectors": message(
    "The old way of starting and large sectors",
    "{drive} has sectors of 4,096 bytes, and the firmware starts in legacy mode.",
    "Start in UEFI mode, or choose a drive of 512 bytes to a sector.",
    "Legacy firmware reads 512 bytes of a sector and finds no loader there.",
  ),
  "storage.swap-large": message(
    "Swap takes much of the drive",
    "Swap of {swap} is {share} of the drive.",
    "Choose less; the sheet has the reasons for each.",
    "Half of the memory was taken by habit, and nobody knew why.",
  ),
  "storage.swap-pool": message(
    "Swap with the root on a pool",
    "{profile} puts its root on a pool, and has no partition for the swap of {swap} that the sheet wants.",
    "Choose none, or a partition beside the pool; not a volume inside it.",
    "Swap on a volume of a pool needs memory to free memory, and stands still when there is none.",
  ),
  "storage.swap-by-hand": message(
    "Swap that the installer does not make",
    "{profile} makes no swap by itself, and the sheet wants {swap}.",
    "Make it by hand once the system runs, or leave it to the installer.",
    "What an installer does not offer is forgotten until memory runs out.",
  ),
  "storage.cache-memory": message(
    "Memory that the guests do not get",
    "The cache of ZFS takes up to {cache} of {memory}; {left} stay for the system and all guests.",
    "Set a limit of the cache that leaves what the guests need, and write it into the settings of the module.",
    "The cache gives memory back slowly: guests that start at once are refused, or ended.",
  ),
};
