import { message } from "../../finding";

/** The words of the rules about the machine and whether the wanted system fits it; {facts} come from the hit. */
export const FIT_MESSAGES = {
  "machine.none": message(
    "No machine",
    "No machine is chosen.",
    "Choose the machine, or import one.",
    "Everything else is measured against the machine: without it no number can be checked.",
  ),
  "machine.memory": message(
    "Memory under the requirement",
    "{has} of memory is less than {which} of {wanted} that {profile} asks for.",
    "Add memory, or choose an image that asks for less.",
    "An installer that runs out of memory stops half way, after the disk has been erased.",
  ),
  "machine.cores": message(
    "Too few cores",
    "{has}: {profile} asks for {which} of {wanted}.",
    "Choose another machine or another image.",
    "Some installers refuse to go on below their least number of cores.",
  ),
  "machine.architecture": message(
    "Image for another processor",
    "The processor is {has}, and {says}.",
    "Choose an image for {has}.",
    "A loader for another architecture is not even found by the firmware.",
  ),
  "machine.not-read": message(
    "Not read",
    "{profile} asks for {fact} ({asked}), and nobody has read it on this machine.",
    "Import the answer of {tool}.",
    "What is not known is taken for met, until the installer says otherwise.",
    {
      asked: { amount: "an amount", number: "a number", value: "{value}" },
      tool: {
        memory: "dmidecode, or the collector on any live system",
        processor: "lscpu -J",
        start: "efibootmgr, or the collector on a system that was started as this one will be",
        groups: "the collector's list of IOMMU groups",
      },
    },
  ),
  "machine.role": message(
    "Role and system",
    "The machine is for {role}; {profile} is made for {suits}.",
    "Make sure that this is the machine and the image that are meant.",
    "The wrong one of two machines beside each other is the one with the other role.",
  ),
  "machine.virtualisation": message(
    "Virtualisation not seen",
    "{profile} says virtualisation is {wish}, and the processor does not show it.",
    "Look for it in the firmware settings, switch it on, and import again.",
    "A processor hides the flag while the setting is off; guests will not start without it.",
  ),
  "machine.no-remote-hands": message(
    "No controller for virtual media",
    "{machine} has no management controller, so no image can be mapped from afar.",
    "Use a stick.",
    "Without a controller somebody must stand at the machine.",
  ),
  "machine.media-licence": message(
    "Virtual media licence",
    "Virtual media on the management controller: {media}.",
    "Enter the licence, find out whether there is one, or use a stick.",
    "The menu is there without the licence; it refuses in the moment of mapping.",
  ),
  "machine.iommu": message(
    "IOMMU not seen",
    "The running system had no IOMMU groups; for {profile} the IOMMU is {wish}.",
    "Look for it in the firmware settings under the maker's own name for it, switch it on, and import again.",
    "Without an IOMMU no device can be given to a guest.",
  ),
  "machine.level": message(
    "Processor too old for the system",
    "{profile} asks for {wanted}; the processor reaches {has}.",
    "Choose an older version of the system or a newer machine.",
    "The system is compiled for instructions that this processor does not have, and stops at its first start.",
  ),
  "machine.firmware-least": message(
    "Firmware older than the profile asks",
    "{part} is at {found}; {profile} asks for {least}: {why}",
    "Update the firmware first, as a step of its own.",
    "Faults that are mended in a later firmware come back as riddles during the installation.",
  ),
  "compat.does-not-work": message(
    "Known not to work",
    "{part}: noted as not working under {profile} ({evidence}).",
    "Choose another version or part, or write down why it should work this time.",
    "Somebody has already found this dead end.",
  ),
  "compat.condition": message(
    "Works with a condition",
    "{part} works under {profile} with a condition: {condition}",
    "Meet the condition before or during the installation.",
    "The condition was found the hard way once.",
  ),
  "compat.works": message(
    "Known to work",
    "{part}: noted as working under {profile} ({evidence}).",
    "Nothing to do.",
    "A verdict with a date is worth more than a guess.",
  ),
};
