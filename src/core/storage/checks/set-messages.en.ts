import { message } from "../../finding";
import { CONSENT } from "./consent.en";

/** The words of the rules about the sets that a build makes of other drives. */
export const SET_MESSAGES = {
  "storage.set-shape": message(
    "Array or pool not possible",
    "The {set}: {fault}.",
    "Choose another layout, other drives, or another name.",
    "A tool rejects it, or creates another layout than planned.",
  ),
  "storage.set-name": message(
    "Name in use",
    "The {set} would have the same name as {other}.",
    "Choose another name.",
    "Two pools with one name cannot be imported together, and commands can address the wrong one.",
    { other: { planned: "another array or pool of this sheet", there: "one that exists on the drives now" } },
  ),
  "storage.set-keeper": message(
    "System does not support this array or pool",
    "{profile} does not support this type ({kind}): the {set} would have no RAID implementation.",
    "Use hardware RAID, choose another system, or leave the drives for a later one.",
    "The installed system would have another layout than planned.",
  ),
  "storage.set-later": message(
    "Planned for later",
    "The {set} will be created on {day}, after this build{late}.",
    "Create it then, from a separate sheet or from this one with the date removed.",
    "Until then, data is stored on the system drive.",
    { late: { late: ", and that day has passed", ahead: "" } },
  ),
  "storage.set-drive": message(
    "Drive assigned twice",
    "{drive} is a member of the {set}, and {also}.",
    "Remove it from one of them.",
    "The first of the two uses erases the other.",
    {
      also: {
        target: "it is the target",
        kept: "it is protected",
        other: "another array or pool uses it too",
        gone: "it was not found at the last import",
      },
    },
  ),
  "storage.set-erases": message(
    "Array or pool uses drives with data",
    "On {drive}, of the {set}: {holds}. Creating it erases the drive; {state}.",
    "Check the contents, back up what is needed, then type the last characters of its serial number to confirm.",
    "Pools have been created over others that were still needed.",
    { state: CONSENT },
  ),
  "storage.set-unread": message(
    "Drive contents unknown",
    "The contents of {drive}, of the {set}, were not collected, so it may hold data; {state}.",
    "Run the collector (lsblk and blkid report contents), or check the drive and type its serial number to confirm the loss of all data.",
    "Drives that are listed without their contents look empty.",
    { state: CONSENT },
  ),
  "storage.set-letter": message(
    "Drive without a stable identity",
    "{drive}, of the {set}, reports neither serial number nor WWN; its device name was {letter}.",
    "Import as root, or remove the drive.",
    "Commands use stable names; a device name can belong to another drive after the next boot.",
  ),
  "storage.set-failing": message(
    "Failing drive in an array or pool",
    "{drive}, of the {set}: {reasons}.",
    "Remove or replace it first.",
    "A drive that fails during a rebuild removes redundancy when it is needed.",
  ),
  "storage.set-unchecked": message(
    "Used drives without SMART data",
    "{set}: used drives without SMART data: {drives} ({count}).",
    "Run smartctl -j -a on them and import the output; run their long self-tests.",
    "Drives from other machines can have many operating hours and bad sectors.",
  ),
  "storage.set-share": message(
    "Most of the capacity is used for copies",
    "The {set}: {sentence}",
    "Choose another layout, or waive this with the reason.",
    "Each further copy reduces the usable capacity.",
  ),
  "storage.set-bare": message(
    "No fault tolerance",
    "The {set} has neither copies nor parity{zfs}.",
    "Choose a layout with fault tolerance, or waive this with the source of a restore.",
    "The first drive failure loses all data, and more drives make it more probable.",
    { zfs: { zfs: "; the pool detects damaged data, but usually cannot repair it", none: "" } },
  ),
  "storage.set-remark": message(
    "Layout has a disadvantage",
    "The {set}: {remark}",
    "Compare the layouts in the storage planner; waive this with a reason if the layout is right.",
    "A layout cannot be changed later without moving all data.",
  ),
  "storage.set-odd": message(
    "Drive of a different size",
    "{set}: {drives} differs from the others. With it {in} is usable, and {idle} stays unused; without it {out}; by itself it holds {alone}, without a copy.",
    "Remove it if that gives more capacity, or use it as a hot spare: for that it must be as large as the others.",
    "The smallest member limits the capacity of all.",
    { out: { fewer: "this layout is not possible", some: "{left}" } },
  ),
  "storage.set-hidden": message(
    "ZFS pool behind a RAID controller",
    "{drive}, of the {set}, {how}.",
    "Set the controller to pass-through (HBA) mode, or use hardware RAID without a pool.",
    "A RAID controller hides drive errors from ZFS, and its repairs are not verified by ZFS.",
    {
      how: {
        virtual: "is a virtual drive of a RAID controller",
        raid: "is attached to a controller in RAID mode",
      },
    },
  ),
  "storage.set-plain": message(
    "No controller for hardware RAID",
    "The {set} is planned as hardware RAID, and {drive} {how}.",
    "Use md or ZFS, or choose drives of the controller.",
    "The setup of the controller does not list the drive.",
    {
      how: {
        none: "is not attached to a known controller",
        "passes through": "is attached to a controller in pass-through mode",
        two: "is attached to another controller than the others",
      },
    },
  ),
  "storage.set-flash": message(
    "Data on removable or low-endurance media",
    "{drive}, of the {set}, is {media}.",
    "Use built-in drives for data.",
    "Flash cards and USB sticks wear out by guest writes and can be unplugged by mistake.",
    { media: { card: "a flash card", stick: "removable" } },
  ),
  "storage.set-shingled": message(
    "SMR drive in an array or pool",
    "{drive}, of the {set}, {how}.",
    "Use CMR drives for arrays and pools, and SMR drives for copies that are written sequentially.",
    "During a rebuild an SMR drive slows to a few MB/s, times out, and is dropped as failed. No tool reports drive-managed SMR; see the data sheet.",
    {
      how: {
        managed:
          "must be written sequentially, zone by zone (host-managed SMR), which arrays and pools do not do",
        aware: "slows down with random writes (host-aware SMR)",
      },
    },
  ),
  "storage.set-san": message(
    "Network volume in an array or pool",
    "{drive}, of the {set}, is reached over {san}.",
    "Use drives of the machine itself, or use the volume as a single drive with the redundancy of its storage system.",
    "Redundancy is provided twice, and a network interruption makes members fail.",
  ),
  "storage.set-sectors": message(
    "Mixed sector sizes",
    "The {set} mixes drives with 512-byte and 4,096-byte sectors: {drives}.",
    "Use drives with one sector size, or reformat those that support it.",
    "Some implementations reject the mix; others accept it, and cannot add or replace drives later.",
  ),
  "storage.set-cache": message(
    "Write cache without battery",
    "The {set} uses a write-back cache without a battery.",
    "Use write-through, or install the battery.",
    "A power loss destroys writes that the controller has confirmed.",
  ),
  "storage.set-full": message(
    "Expected data exceeds the capacity",
    "{data} is planned for the {set}, of which {usable} is usable: {share}.",
    "Use more drives, or another layout.",
    "A nearly full pool slows down, and when it is full its guests stop.",
  ),
  "storage.set-special": message(
    "Special devices less fault-tolerant than the data",
    "Special devices of the {set} tolerate {special} drive failures, its data {data}.",
    "Mirror the special devices as often as the data, or remove them.",
    "The metadata is on them only: if they fail, the pool is lost regardless of its parity.",
  ),
  "storage.set-log": message(
    "Single log device",
    "The {set} has one log device.",
    "Mirror it if the last seconds of writes must not be lost.",
    "If the log device fails together with the power, confirmed writes are lost.",
  ),
  "storage.set-volumes": message(
    "Volumes not possible",
    "{set}: {fault}.",
    "Change their names or sizes, or make them thin-provisioned.",
    "The script would stop after some of the volumes.",
  ),
  "storage.set-promised": message(
    "Thin provisioning exceeds capacity",
    "{set}: {promised} provisioned on {room} ({share}).",
    "Monitor the fill level with an alert at 80 %, or provision less.",
    "When a thin-provisioned store is full, all guests on it stop or lose writes.",
  ),
  "storage.set-padding": message(
    "Volumes use more than their size",
    "{set}: {volumes}: {takes} used for {size}.",
    "Use larger blocks, or mirrors for volumes.",
    "Small blocks on a wide RAIDZ need parity and padding for each block.",
  ),
  "storage.set-thick": message(
    "Thick-provisioned volumes for guests",
    "The volumes of the {set} allocate all their space at once.",
    "Use thin provisioning for snapshots, or keep free space in the volume group.",
    "A snapshot of a thick-provisioned volume needs extra space and slows the volume down.",
  ),
};
