import { message } from "../../finding";
import { CONSENT } from "./consent.en";

/** The words of the rules about the sets that a build makes of other drives. */
export const SET_MESSAGES = {
  "storage.set-shape": message(
    "A set that cannot be made",
    "The {set}: {fault}.",
    "Choose another layout for its drives, other drives, or another name.",
    "A tool refuses such a set in the middle of the work, or makes another one than was meant.",
  ),
  "storage.set-name": message(
    "A name that is taken",
    "The {set} would have the name of {other}.",
    "Give it another name.",
    "Two pools of one name cannot be imported together, and commands to one are given to the other.",
    { other: { planned: "another set of this sheet", there: "one that stands on the drives now" } },
  ),
  "storage.set-keeper": message(
    "A system that makes no such set",
    "{profile} makes no {kind}: the {set} would have nobody to keep it.",
    "Let its controller keep the copies, choose another system, or leave the drives for a later one.",
    "A layout was praised and planned, and another one installed, since the system offered no other.",
  ),
  "storage.set-later": message(
    "Left for later",
    "The {set} is made on {day}, after this build{late}.",
    "Make it then, from a sheet of its own or this one with the day taken away.",
    "Until it is there, data go to the drive that the system starts from, and stay.",
    { late: { late: ", and that day is over", ahead: "" } },
  ),
  "storage.set-drive": message(
    "A drive with two fates",
    "{drive} belongs to the {set}, and {also}.",
    "Take it from one of them.",
    "A drive that two lists claim is erased by one of them.",
    {
      also: {
        target: "the system is installed on it",
        kept: "it must not be touched",
        other: "another set claims it too",
        gone: "it was not seen at the last import",
      },
    },
  ),
  "storage.set-erases": message(
    "A set on drives that are in use",
    "On {drive}, of the {set}: {holds}. Making the set erases it; {state}.",
    "Look at it, save what is needed, then write the tail of its serial to agree.",
    "A pool was made over one that somebody still needed, of which nothing but its name had been read.",
    { state: CONSENT },
  ),
  "storage.set-unread": message(
    "Nobody has looked at a drive of a set",
    "What stands on {drive}, of the {set}, was not read, which is not the same as nothing; {state}.",
    "Run the collector (lsblk and blkid tell it), or look at the drive and type its serial to agree that all of it is lost.",
    "A list of drives without a word on their contents looks like empty drives.",
    { state: CONSENT },
  ),
  "storage.set-letter": message(
    "No identity but a letter, in a set",
    "{drive}, of the {set}, reports neither serial nor WWN; it was seen as {letter}.",
    "Import as root, or leave the drive out.",
    "Commands name drives by what stays; a letter goes to another drive at the next start.",
  ),
  "storage.set-failing": message(
    "A set begins with a failing drive",
    "{drive}, of the {set}: {reasons}.",
    "Leave it out, or exchange it first.",
    "A set is filled at once and rebuilt at the worst moment; a drive that fails now takes part of its safety with it.",
  ),
  "storage.set-unchecked": message(
    "Used drives without a health reading",
    "Of the {set}, {count} held data before and were never asked for hours and errors: {drives}.",
    "Run smartctl -j -a on them and import the answers; run their long self-tests.",
    "Drives from other machines are put into service with no look at their hours and bad sectors.",
  ),
  "storage.set-share": message(
    "Most of the drives goes to copies",
    "The {set}: {sentence}",
    "Choose another layout, or say as the reason of a waiver why so little is enough.",
    "Four drives were put into one mirror by habit; that three of them add nothing that can be used was seen when it was full.",
  ),
  "storage.set-bare": message(
    "No drive of this set may fail",
    "The {set} keeps no copy and no parity{zfs}.",
    "Choose a layout that bears a failure, or say as a waiver from where it would be restored.",
    "The first failure takes everything, and with more drives it comes sooner.",
    { zfs: { zfs: "; the pool notices damage to data, and mostly cannot repair it", none: "" } },
  ),
  "storage.set-remark": message(
    "Before this layout is chosen",
    "The {set}: {remark}",
    "Compare the layouts of its drives on the bench; give the reason as a waiver where this one is right.",
    "What a layout costs shows years later, when it cannot be changed without moving everything.",
  ),
  "storage.set-odd": message(
    "A drive of another size",
    "In the {set} {drives} differs from the others: with it {in} can be used, and {idle} stay idle; without it {out}; by itself it holds {alone}, without a copy.",
    "Leave it out where that gives more, or keep it as a spare: it must be as large as the others for that.",
    "A set is as large as its smallest member allows, and no tool says what the odd one cost.",
    { out: { fewer: "no set of this layout can be made", some: "{left}" } },
  ),
  "storage.set-hidden": message(
    "A pool over a controller's drives",
    "{drive}, of the {set}, {how}.",
    "Set the controller to pass drives through, or let it keep the copies and make no pool of them.",
    "A controller that answers for its drives hides their errors from ZFS, and its own repair is one that ZFS cannot check.",
    {
      how: {
        virtual: "is a virtual drive that a RAID controller makes",
        raid: "hangs on a controller in RAID mode",
      },
    },
  ),
  "storage.set-plain": message(
    "No controller to make it",
    "The {set} is to be made by a RAID controller, and {drive} {how}.",
    "Let md or ZFS keep the copies, or choose drives of the controller.",
    "A set-up page that does not list the drive is found after the power has been cut for it.",
    {
      how: {
        none: "hangs on none that was read",
        "passes through": "hangs on one that passes its drives through",
        two: "hangs on another one than the others",
      },
    },
  ),
  "storage.set-flash": message(
    "Data on what wears and gets pulled",
    "{drive}, of the {set}, is {media}.",
    "Use built-in drives for data.",
    "Flash cards and sticks wear out under guests and get pulled by mistake.",
    { media: { card: "a flash card", stick: "removable" } },
  ),
  "storage.set-shingled": message(
    "A drive with shingled tracks in a set",
    "{drive}, of the {set}, {how}.",
    "Take drives with plain tracks for sets, and these for copies that are written once from end to end.",
    "A rebuild writes such a drive without a pause: it falls to a few MB/s, times out, and is thrown out as failed. Drives that hide their shingles are told by no tool; the data sheet says it.",
    {
      how: {
        managed: "is written from the front only, zone by zone, which no set does",
        aware: "slows down when it is written here and there",
      },
    },
  ),
  "storage.set-san": message(
    "A volume of an array in a set of this machine",
    "{drive}, of the {set}, is reached over {san}.",
    "Take drives of the machine itself, or let the array keep its own redundancy and use the volume as one drive.",
    "Redundancy is paid for twice, and a break of the network takes members away as if they had failed.",
  ),
  "storage.set-sectors": message(
    "Sectors of two sizes in one set",
    "The {set} mixes drives of 512 and of 4,096 bytes to a sector: {drives}.",
    "Take drives of one kind, or reformat those that can be.",
    "Some keepers refuse the mix; others take it, and the pool cannot take the next drive.",
  ),
  "storage.set-cache": message(
    "Writes that a power cut loses",
    "The {set} keeps writes in a cache without a battery.",
    "Write through, or fit the battery.",
    "The controller says that data are written while they stand in memory alone.",
  ),
  "storage.set-full": message(
    "More data than the set bears",
    "{data} are to stand on the {set}, of which {usable} can be used: {share}.",
    "Take more drives, or another layout.",
    "A pool that is nearly full slows down for good, and the day it is full its guests stop.",
  ),
  "storage.set-special": message(
    "Special devices that bear less than the data",
    "The special devices of the {set} bear the loss of {special}, its data the loss of {data}.",
    "Mirror them as often as the data bear, or leave them out.",
    "What describes the data stands on them alone: when they are lost the pool is lost, whatever its parity.",
  ),
  "storage.set-log": message(
    "A log of one drive",
    "The {set} has one log device.",
    "Mirror it where the last seconds of writing must not be lost.",
    "A log that fails together with the power takes what was confirmed and not yet written.",
  ),
  "storage.set-volumes": message(
    "Volumes that cannot be made",
    "On the {set}: {fault}.",
    "Change their names or sizes, or make them thin.",
    "The script would stop in the middle, with half of them made.",
  ),
  "storage.set-promised": message(
    "More promised than there is",
    "On the {set} {promised} are promised of {room}: {share}.",
    "Watch how full it is, and say who is told at 80 %; or promise less.",
    "When a thin store is full every guest on it stops at once, or loses what it writes.",
  ),
  "storage.set-padding": message(
    "Volumes that take more than their size",
    "On the {set} {volumes}: {takes} are taken for {size}.",
    "Take larger blocks, or mirrors for volumes.",
    "Small blocks on wide groups pay parity and padding for each of them.",
  ),
  "storage.set-thick": message(
    "Thick volumes for guests",
    "The volumes of the {set} take all their space at once.",
    "Take thin ones where snapshots are wanted; leave room in the group where they stay thick.",
    "A snapshot of a thick volume needs free space of its own and slows the volume down; nobody finds that out before the first one.",
  ),
};
