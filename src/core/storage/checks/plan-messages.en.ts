import { message } from "../../finding";

/** The words of the rules about the parts that the target is cut into. */
export const PLAN_MESSAGES = {
  "storage.idle": message(
    "Most of the drive stays unused",
    "By default the installer of {profile} uses {used} and leaves {idle} of {whole} unused.",
    "Choose the largest size in the installer, or extend the volume later; the sheet has the commands.",
    "The root volume fills while most of the drive is unused.",
  ),
  "storage.target-share": message(
    "Most of the target is used for copies",
    "A {layout} of {count} drives: {usable} of {whole} is usable.",
    "Use fewer drives for the system, or waive this with the reason for so many copies.",
    "Installers put all chosen drives into one mirror by default.",
  ),
  "storage.table-limit": message(
    "Partition table does not cover the whole drive",
    "{profile} creates an MBR on a drive of {size}: {fault}.",
    "Boot in UEFI mode, or choose a smaller drive.",
    "Some tools refuse such a drive, others create 2 TiB without warning.",
  ),
  "storage.efi-small": message(
    "EFI system partition too small for FAT32",
    "{profile} creates an EFI system partition of {size}; with clusters of one sector it has {clusters}, and FAT32 needs at least 65,525.",
    "Make it {wanted} or larger, or choose a drive with 512-byte sectors.",
    "Firmware that counts clusters reads it as FAT16 and finds no loader.",
  ),
  "storage.legacy-sectors": message(
    "Legacy boot not possible with 4,096-byte sectors",
    "{drive} has sectors of 4,096 bytes, and the boot mode is legacy BIOS.",
    "Boot in UEFI mode, or choose a drive with 512-byte sectors.",
    "Legacy BIOS firmware reads 512 bytes of a sector and finds no loader.",
  ),
  "storage.swap-large": message(
    "Swap uses much of the drive",
    "Swap of {swap} is {share} of the drive.",
    "Choose a smaller size; the sheet has the reasons for each.",
    "The space is not available for data.",
  ),
  "storage.swap-pool": message(
    "Swap not possible with the root on a pool",
    "{profile} has its root on a pool, and no partition for the planned swap of {swap}.",
    "Choose none, or a partition outside the pool; not a volume inside it.",
    "Swap on a ZFS volume needs memory to free memory, and can freeze the system.",
  ),
  "storage.swap-by-hand": message(
    "Swap not created by the installer",
    "{profile} creates no swap by default, and the sheet plans {swap}.",
    "Create it manually once the system runs, or use the default of the installer.",
    "Without the planned swap, the system can run out of memory.",
  ),
  "storage.cache-memory": message(
    "Little memory left for guests",
    "The ZFS cache (ARC) uses up to {cache} of {memory}; {left} remain for the system and all guests.",
    "Limit the ARC so that guests get the memory they need, and set the limit as a module parameter.",
    "The ARC releases memory slowly: guests that start at once can fail.",
  ),
};
