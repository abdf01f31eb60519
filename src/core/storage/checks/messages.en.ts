import { message } from "../../finding";
import { CONSENT } from "./consent.en";
import { PLAN_MESSAGES } from "./plan-messages.en";
import { SET_MESSAGES } from "./set-messages.en";

/** The words of the rules about the drives; {facts} come from the hit. */
export const STORAGE_MESSAGES = {
  ...PLAN_MESSAGES,
  ...SET_MESSAGES,
  "storage.upgrade-target": message(
    "Not the drive that holds the system",
    "The road {road} keeps the system on the drive that it stands on: {state}.",
    "Choose the drive that holds the system, or install fresh. The collector tells it: findmnt, zpool, efibootmgr.",
    "An installer that finds no system on the chosen drive offers to install over it.",
    {
      state: {
        unread: "nothing that was read tells which drive that is",
        other: "that is {system}, and the target is another drive",
      },
    },
  ),
  "storage.boot-target": message(
    "Boot device and system",
    "{profile} on a {kind}: {verdict}. {words}",
    "Choose another target, or give the reason as a waiver.",
    "What a system writes all day wears out what it starts from.",
  ),
  "storage.no-target": message(
    "No target drive",
    "No drive is chosen to install on.",
    "Choose the drive in the picture.",
    "A target chosen in front of the installer's list is chosen by letter and size.",
  ),
  "storage.target-gone": message(
    "Target not in the machine",
    "The target {drive} was not seen at the last import.",
    "Import again, or choose another target.",
    "What is not there cannot be the target; the installer would offer another in its place.",
  ),
  "storage.letter-only": message(
    "No identity but a letter",
    "The target ({size}) reports neither serial nor WWN; it was seen as {letter}, and {verdict}.",
    "Import as root, or pull the other drives for the installation.",
    "Letters are given in the order in which drives answer; they move.",
    {
      verdict: {
        alone: "it is the only drive of the machine, so size is enough",
        "among others": "nothing tells it from the others after a restart",
      },
    },
  ),
  "storage.holds-data": message(
    "The target holds data",
    "On {drive}: {holds}. The installation erases it; {state}.",
    "Look at it, save what is needed, then write the tail of its serial to agree.",
    "Drives were wiped by letter with nobody looking at what stood on them.",
    { state: CONSENT },
  ),
  "storage.not-read": message(
    "Nobody has looked at the target",
    "What stands on {drive} was not read, which is not the same as nothing; {state}.",
    "Run the collector (lsblk and blkid tell it), or look at the drive and type its serial to agree that all of it is lost.",
    "A controller and a health tool name drives without a word on their contents, and such a list looks like empty drives.",
    { state: CONSENT },
  ),
  "storage.layout": message(
    "Drives and layout do not fit",
    "{layout} {words}.",
    "Choose another layout, or other drives.",
    "An installer lays a set over what it is given, or stops in the middle of its pages.",
    {
      words: {
        one: "is one drive, and {count} are chosen",
        more: "needs at least {least} drives, and {count} is chosen",
        "not offered": "is not offered by {profile}, which knows {offered}",
        unequal: "takes {used} of each drive, and leaves {idle} unused",
        "small spare": "cannot use {drive} as a spare: it is smaller than a member",
      },
    },
  ),
  "storage.breaks-set": message(
    "What is erased belongs to a set",
    "A member is taken from {set}, whose others are kept: {others}.",
    "Choose another drive, or free the other members too.",
    "A pool or array that loses a member loses its redundancy, or everything.",
  ),
  "storage.hidden": message(
    "A target that no installer will list",
    "The system that was running did not see {drive}: {mode}.",
    "Make a virtual drive of it in the set-up of its controller, or set that to pass drives through; then read the machine again.",
    "An installer lists what the controller shows, and the only drive that it lists is then another one.",
    {
      mode: {
        raid: "its controller shows drives only as part of a set",
        other: "only a management controller tells of it",
      },
    },
  ),
  "storage.alike": message(
    "Drives that look alike",
    '{count} other drives show as "{line}" too. Their serials end in {others}.',
    "Compare the serial on the installer's detail view; pull the others if it shows none.",
    "With two equal lines on the screen the choice is a coin toss.",
    { line: { model: "{model} {size}", "no model": "no model {size}" } },
  ),
  "storage.undecided": message(
    "Drive not on the sheet",
    "{drive} is in the machine and on no list; on it: {holds}.",
    "Put it on the leave-alone list, or free it.",
    "A drive that turned up after planning is somebody's.",
  ),
  "storage.too-small": message(
    "Disk under the requirement",
    "{has}: {profile} asks for {which} of {wanted}.",
    "Choose a larger drive.",
    "An installer may accept a small disk and fill it at the first update.",
  ),
  "storage.removable": message(
    "Target is removable or wears fast",
    "{drive} is {media}.",
    "Keep a spare and a copy of the configuration, or choose a built-in drive.",
    "Flash cards and sticks wear out under logs and get pulled by mistake.",
  ),
  "storage.single": message(
    "One drive, no redundancy",
    "The system stands on one of {drives} drives; when it fails, the machine is down.",
    "Mirror it after the installation, or say as a waiver why one is enough.",
    "A chassis built for many drives is often run on one by default.",
  ),
  "storage.target-failing": message(
    "Target drive is failing",
    "{drive}: {reasons}.",
    "Choose another drive.",
    "An installation is the longest write a system drive ever sees, and a failing one breaks during it or soon after.",
  ),
  "storage.target-unread": message(
    "Used drive without a health reading",
    "{drive} has been used before, and nobody has asked it for its hours and errors.",
    "Run smartctl -j -a on it and import the answer; run its long self-test.",
    "Drives from other machines are put into service with no look at their hours and bad sectors.",
  ),
};
