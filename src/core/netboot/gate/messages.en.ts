import { message } from "../../finding";

/** The words of the rules before a machine is armed; {facts} come from the hit. */
export const ARM_MESSAGES = {
  "arm.service": message(
    "Boot service off",
    "The boot service is off: DERRICK_BOOT_URL is not set on this server.",
    "Set it as README describes, and restart Derrick.",
    "Without an address, machines cannot ask this server for anything.",
  ),
  "arm.site": message(
    "Network boot off at the site",
    "Network boot is off at {site}.",
    "Enable it on the page of the site.",
    "Not every network may be booted from; its owner decides.",
  ),
  "arm.machine": message(
    "No machine chosen",
    "No machine is chosen.",
    "Choose the machine in zone A.",
    "An arming is for one machine.",
  ),
  "arm.image": message(
    "No image with a known OS profile",
    "No image with a known OS profile is chosen.",
    "Choose the image in zone B, or import its OS profile.",
    "The profile says which files of the image a machine boots.",
  ),
  "arm.serial": message(
    "Serial number missing",
    "The serial number of {machine} was not collected, so the machine cannot be identified.",
    "Import the output of dmidecode.",
    "A machine that asks is compared with the planned one by its serial number.",
  ),
  "arm.ports": message(
    "No wired port known",
    "No wired port of {machine} is known.",
    "Import the output of ip -j link.",
    "A machine that asks is known by the MAC of its port.",
  ),
  "arm.way": message(
    "Not a network installation",
    "This sheet is not for a network installation.",
    "Choose the boot source network boot in zone B, a fresh installation, and network boot at its site.",
    "Other sheets have steps for a person at the machine.",
  ),
  "arm.profile": message(
    "Profile without network boot",
    "The profile of {profile} does not define {what}.",
    "Add it to the profile (netboot).",
    "Kernel, initramfs and kernel command line differ between installers.",
    { what: { files: "network boot", words: "the kernel command line" } },
  ),
  "arm.words": message(
    "Kernel command line invalid",
    "Kernel command line: {problem}.",
    "Correct it in zone F.",
    "A word that the kernel misreads changes what is installed.",
  ),
  "arm.image-file": message(
    "File of the image missing",
    "{problem}",
    "Copy the image to the image folder, or choose another one.",
    "A machine reads its installer from this file.",
  ),
  "arm.versions": message(
    "Kernel and initramfs do not match",
    "{problem}",
    "Use kernel and initramfs of one release.",
    "A kernel without its modules finds no drive and no network.",
  ),
  "arm.answers": message(
    "Answer file incomplete",
    "{problem}",
    "Complete it on the build sheet.",
    "An installer that lacks an answer waits for a person.",
  ),
  "arm.report": message(
    "Machine cannot report its end",
    "The answer file of {profile} supports no commands, so the machine cannot report the end of its installation.",
    "Add lines for them to its profile (answerScript, for: command).",
    "Without a report the machine would be offered its installation again.",
  ),
} as const;
