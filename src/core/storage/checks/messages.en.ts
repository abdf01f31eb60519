import { message } from "../../finding";
import { CONSENT } from "./consent.en";
import { PLAN_MESSAGES } from "./plan-messages.en";
import { SET_MESSAGES } from "./set-messages.en";

/** The words of the rules about the drives; {facts} come from the hit. */
export const STORAGE_MESSAGES = {
  ...PLAN_MESSAGES,
  ...SET_MESSAGES,
  "storage.upgrade-target": message(
    "Target is not the present system drive",
    "“{road}” keeps the system on its present drive: {state}.",
    "Choose the drive that holds the system, or install fresh. The collector reports it (findmnt, zpool, efibootmgr).",
    "An installer that finds no system on the chosen drive offers to erase it.",
    {
      state: {
        unread: "the collected data does not show which drive that is",
        other: "that is {system}, and the target is another drive",
      },
    },
  ),
  "storage.boot-target": message(
    "Boot device not recommended",
    "{profile} on a {kind}: {verdict}. {words}",
    "Choose another target, or waive this with a reason.",
    "Continuous writes wear out a boot device of this type.",
  ),
  "storage.no-target": message(
    "Target missing",
    "No target drive is chosen.",
    "Choose the target drive in the list.",
    "A target that is chosen during the installation is identified by device name and size only.",
  ),
  "storage.target-gone": message(
    "Target not in the machine",
    "The target {drive} was not found at the last import.",
    "Import the hardware data again, or choose another target.",
    "The installer would offer another drive instead.",
  ),
  "storage.letter-only": message(
    "Target without a stable identity",
    "The target ({size}) reports neither serial number nor WWN; its device name was {letter}, and {verdict}.",
    "Import as root, or pull the other drives for the installation.",
    "Device names are assigned in detection order and can change at each boot.",
    {
      verdict: {
        alone: "it is the only drive of the machine, so its size identifies it",
        "among others": "nothing distinguishes it from the others after a restart",
      },
    },
  ),
  "storage.holds-data": message(
    "Target holds data",
    "On {drive}: {holds}. The installation erases it; {state}.",
    "Check the contents, back up what is needed, then type the last characters of its serial number to confirm.",
    "Drives have been erased by device name without a check of their contents.",
    { state: CONSENT },
  ),
  "storage.not-read": message(
    "Target contents unknown",
    "The contents of {drive} were not collected, so it may hold data; {state}.",
    "Run the collector (lsblk and blkid report contents), or check the drive and type its serial number to confirm the loss of all data.",
    "Controllers and SMART tools list drives without their contents; such drives look empty.",
    { state: CONSENT },
  ),
  "storage.layout": message(
    "Drives do not match the layout",
    "{layout} {words}.",
    "Choose another layout, or other drives.",
    "The installer creates another layout, or stops.",
    {
      words: {
        one: "is one drive, and {count} are chosen",
        more: "needs at least {least} drives, and {count} is chosen",
        "not offered": "is not offered by {profile}, which offers {offered}",
        unequal: "uses {used} of each drive, and leaves {idle} unused",
        "small spare": "cannot use {drive} as a spare: it is smaller than a member",
      },
    },
  ),
  "storage.breaks-set": message(
    "Erased drive is a member of an array or pool",
    "A member is taken from {set}, whose other members are kept: {others}.",
    "Choose another drive, or free the other members too.",
    "An array or pool that loses a member loses redundancy or all data.",
  ),
  "storage.hidden": message(
    "Target not visible to the installer",
    "The running system did not see {drive}: {mode}.",
    "Create a virtual drive of it in the setup of its controller, or set the controller to pass-through mode; then collect the hardware data again.",
    "The installer lists only the drives that the controller presents, which are other ones.",
    {
      mode: {
        raid: "its controller presents drives only as part of an array",
        other: "only the management controller reports it",
      },
    },
  ),
  "storage.alike": message(
    "Similar drives",
    '{count} other drives also show as "{line}". Their serial numbers end in {others}.',
    "Compare the serial number in the detail view of the installer; if it shows none, pull the other drives.",
    "Drives with the same text on the screen are easily confused.",
    { line: { model: "{model} {size}", "no model": "no model {size}" } },
  ),
  "storage.undecided": message(
    "Drive without a planned use",
    "{drive} is in the machine and has no use on this sheet; contents: {holds}.",
    "Set its use to protected or free.",
    "A drive that was added after planning may hold data.",
  ),
  "storage.too-small": message(
    "Disk below the requirement",
    "Capacity: {has}; {profile} {which} {wanted}.",
    "Choose a larger drive.",
    "An installer may accept a small disk that the first update fills.",
  ),
  "storage.removable": message(
    "Target is removable or has low endurance",
    "{drive} is {media}.",
    "Keep a spare and a copy of the configuration, or choose a built-in drive.",
    "Flash cards and USB sticks wear out by log writes and can be unplugged by mistake.",
  ),
  "storage.single": message(
    "No redundancy for the system",
    "The system uses one of {drives} drives; if it fails, the machine is down.",
    "Mirror it after the installation, or waive this with a reason.",
    "Installers use a single drive by default.",
  ),
  "storage.target-failing": message(
    "Target drive is failing",
    "{drive}: {reasons}.",
    "Choose another drive.",
    "The long writes of an installation can make a failing drive fail completely.",
  ),
  "storage.target-unread": message(
    "Used drive without SMART data",
    "{drive} has been used before, and its SMART data was not collected.",
    "Run smartctl -j -a on it and import the output; run its long self-test.",
    "Drives from other machines can have many operating hours and bad sectors.",
  ),
};
