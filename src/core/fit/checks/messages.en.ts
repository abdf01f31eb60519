import { message } from "../../finding";

/** The words of the rules about the machine and whether the wanted system fits it; {facts} come from the hit. */
export const FIT_MESSAGES = {
  "machine.none": message(
    "No machine chosen",
    "No machine is chosen.",
    "Choose the machine, or import one.",
    "All requirements are compared with the machine.",
  ),
  "machine.memory": message(
    "Memory below the requirement",
    "Installed memory: {has}; {profile} {which} {wanted}.",
    "Add memory, or choose an image with lower requirements.",
    "An installer that runs out of memory stops after the disk has been erased.",
  ),
  "machine.cores": message(
    "Too few processor cores",
    "Cores: {has}; {profile} {which} {wanted}.",
    "Choose another machine or another image.",
    "Some installers stop below their minimum number of cores.",
  ),
  "machine.architecture": message(
    "Image for another processor architecture",
    "The processor is {has}, and {says}.",
    "Choose an image for {has}.",
    "Firmware does not find a loader of another architecture.",
  ),
  "machine.not-read": message(
    "Required hardware data missing",
    "{profile} requires {fact} ({asked}), and this was not collected from the machine.",
    "Import the output of {tool}.",
    "A missed requirement stops the installer.",
    {
      asked: { amount: "an amount", number: "a number", value: "{value}" },
      tool: {
        memory: "dmidecode, or the collector on any live system",
        processor: "lscpu -J",
        start: "efibootmgr, or the collector on a system that was booted in the planned mode",
        groups: "the list of IOMMU groups of the collector",
      },
    },
  ),
  "machine.role": message(
    "Role does not match the system",
    "The role of the machine is {role}; {profile} is for {suits}.",
    "Check that you chose the right machine and the right image.",
    "A different role often means that the wrong machine was chosen.",
  ),
  "machine.virtualisation": message(
    "Virtualisation not detected",
    "Virtualisation is {wish} for {profile}, and the processor does not report it.",
    "Enable it in the firmware setup, then import the hardware data again.",
    "While the setting is off, the processor hides the flag, and guests do not start.",
  ),
  "machine.no-remote-hands": message(
    "No management controller for virtual media",
    "{machine} has no management controller, so no image can be mapped remotely.",
    "Use a USB stick.",
    "Without a management controller, someone must work at the machine.",
  ),
  "machine.media-licence": message(
    "Virtual media licence missing or unknown",
    "Virtual media on the management controller: {media}.",
    "Enter the licence, check whether there is one, or use a USB stick.",
    "The menu is available without the licence, but mapping an image fails.",
  ),
  "machine.iommu": message(
    "IOMMU not detected",
    "The running system reported no IOMMU groups; for {profile} the IOMMU is {wish}.",
    "Enable it in the firmware setup (names differ by vendor), then import the hardware data again.",
    "Without an IOMMU no device can be passed through to a guest.",
  ),
  "machine.level": message(
    "Processor too old for the system",
    "{profile} requires {wanted}; the processor supports {has}.",
    "Choose an older version of the system or a newer machine.",
    "The system uses instructions that this processor lacks, and fails at its first boot.",
  ),
  "machine.firmware-least": message(
    "Firmware older than required",
    "{part} is at {found}; {profile} requires {least}: {why}",
    "Update the firmware first, as a separate task.",
    "Faults that the later firmware fixes can disturb the installation.",
  ),
  "compat.does-not-work": message(
    "Known not to work",
    "{part}: recorded as not working with {profile} ({evidence}).",
    "Choose another version or part, or record why it should work this time.",
    "An earlier test has failed.",
  ),
  "compat.condition": message(
    "Works with a condition",
    "{part} works with {profile} under a condition: {condition}",
    "Meet the condition before or during the installation.",
    "Without the condition an earlier test has failed.",
  ),
  "compat.works": message(
    "Known to work",
    "{part}: recorded as working with {profile} ({evidence}).",
    "No action is needed.",
    "The verdict is based on a recorded test.",
  ),
};
