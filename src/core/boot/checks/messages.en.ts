import { message } from "../../finding";

/** The words of the rules about the start; {facts} come from the hit. */
export const BOOT_MESSAGES = {
  "stick.scheme": message(
    "GPT stick in legacy mode",
    "{stick} was written with a GPT; some legacy firmware starts only from an MBR.",
    "Write it again with an MBR, or start in UEFI mode.",
    "Such a stick is listed, chosen, and passed over without a word.",
  ),
  "boot.secure-profile": message(
    "Secure boot must be off",
    "Secure boot is on, and {profile} does not start with it.",
    "Plan it off; the profile stands on the record as the reason.",
    "The firmware refuses the loader with a message that seldom names the reason.",
  ),
  "boot.inside": message(
    "The file and the boot mode",
    "{way}, in {mode} mode, this image {verdict}: {reason}.",
    "Change the boot mode or the way, or take an image that is made for it.",
    "Firmware passes over what it cannot start, without a word.",
    {
      verdict: { never: "does not start", sometimes: "starts on some firmware only" },
      way: {
        "virtual media": "as a virtual CD",
        stick: "as a stick",
        disc: "as a disc",
      },
    },
  ),
  "stick.wrong-mode": message(
    "Stick and firmware disagree",
    "As it was written, the stick {verdict} in {mode} mode.",
    "Write it again for {mode} mode, or change the boot mode.",
    "A stick is prepared for one kind of firmware when it is written; in the other mode it is not even listed.",
    { verdict: { never: "will not start", unknown: "may not start" } },
  ),
  "boot.image-mode": message(
    "Image and boot mode disagree",
    "The image does not start in {mode} mode.",
    "Change the boot mode, or take an image for it.",
    "The firmware passes over media that it cannot start, without a word.",
  ),
  "boot.profile-mode": message(
    "Mode not supported",
    "{profile} is not supported in {mode} mode.",
    "Change the boot mode.",
    "It may install and then not start.",
  ),
  "boot.mode-switch": message(
    "Boot mode changes",
    "The machine was started in {found} mode and is planned in {planned} mode; {existing} will not start any more.",
    "Make sure that nothing on other drives is needed that starts in {found} mode.",
    "Systems are installed for one mode; the other does not see them.",
    { existing: { system: "{os}", unknown: "whatever is installed" } },
  ),
  "boot.media-first": message(
    "Media first for good",
    "With the {media} first in the permanent order, the restart after the installation starts the installer again.",
    "Use one-time boot; the permanent order stays as it is.",
    "The second pass of an unattended installer erases what the first has written.",
  ),
  "boot.secure-unsigned": message(
    "Secure boot and the loader",
    "Secure boot is on, and the loader of this image {state}.",
    "Look at the image's loader, or switch secure boot off and say why.",
    "Firmware refuses an unsigned loader with a message that seldom names the reason.",
    { state: { unsigned: "is not signed", unknown: "may not be signed: nobody has looked" } },
  ),
  "boot.secure-off": message(
    "Secure boot off",
    "Secure boot is planned to be off.",
    "Give the reason as a waiver, so that the record shows it.",
    "A switch that nobody wrote down is found years later by an auditor.",
  ),
  "boot.medium-passed": message(
    "The medium is not reached",
    "Started as planned, the machine {ends}. {why}",
    "Look at the path in the picture, and change what stands in the way.",
    "A medium that is passed over looks like one that was never put in.",
  ),
  "boot.installer-again": message(
    "The installer again",
    "With the medium still in, {moment} {ends}.",
    "Put the target first, or take the medium out before the machine restarts; the steps say when.",
    "The second pass of an unattended installer erases what the first has written.",
  ),
  "boot.other-system": message(
    "Another system than the new one",
    "Then {moment} {ends}, and not {wanted}.",
    "Put the entry of the new system first, or take away what stands before it.",
    "The old system answers under the old name, and looks as if the installation had not happened.",
  ),
  "boot.nowhere": message(
    "Nothing is started",
    "Then {moment} {ends}. {why}",
    "Look at the path in the picture: the last device that is tried tells what is missing.",
    "A machine that nobody can reach stays off until somebody stands before it.",
  ),
  "boot.depends": message(
    "It depends",
    "Then {moment} {ends} if {on}; otherwise it {otherwise}.",
    "Find out which it is, or put the target first so that it does not matter.",
    "What nobody has looked at is decided by the firmware, at night.",
  ),
  "boot.single-card": message(
    "One card carries the start",
    "The system is started from one card: when it fails, nothing starts.",
    "Put a second card into the module and mirror both; or set this aside with a day on which it ends.",
    "Cards wear out without a word. One is a lab exception, and needs a recipe by which the system is built again.",
  ),
  "boot.external": message(
    "Started over a cable",
    "The system is started from a device outside of the machine.",
    "Put a note at the port, keep a spare that is written, and save the configuration after each change.",
    "A cable is pulled by whoever needs the port, and the machine goes on until its next restart.",
  ),
  "boot.setting-differs": message(
    "Firmware is set otherwise",
    "{settings}.",
    "Set it as wanted, and write down what stood there; or mark it as left, with the reason in the notes.",
    "A setting that nobody looked at decides the start, and is found when nobody stands there any more.",
  ),
  "boot.site-setting": message(
    "Set otherwise than the site wants it",
    "This sheet wants {settings}.",
    "Plan it as the site has it, or waive this with the reason; the site's own rule stands on its page.",
    "Whoever looks after the machines counts on them all being set alike.",
  ),
  "boot.cannot-set": message(
    "A setting that this machine does not have",
    "This machine cannot be set: {settings}.",
    "Choose so that it is not needed, or take another machine.",
    "What cannot be set limits what can be planned.",
  ),
  "boot.stale-entries": message(
    "Entries that lead nowhere",
    "Of the firmware's list {entries} lead to what is not in the machine.",
    "Delete them one by one, each by its number, when the list has been written down; never the whole list at once.",
    "A stale entry hides which one is live, and a disk that comes back under it starts before all others.",
  ),
  "boot.same-name": message(
    "Entries of one name",
    "The firmware's menu shows {names} more than once.",
    "Choose by the number or by what the entry leads to; both stand below.",
    "Of two lines that read the same, one is the wrong disk.",
  ),
  "boot.mbr-limit": message(
    "Larger than an MBR reaches",
    "In legacy mode with an MBR only {limit} of {size} can be used.",
    "Use UEFI mode, or plan for the part that stays unused.",
    "Partition programs differ: one makes a silent 2 TiB partition, another refuses.",
  ),
};
