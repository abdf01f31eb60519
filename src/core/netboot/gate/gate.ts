import { evidence, hit, rulesOver, type Gate } from "../../finding";
import { ISSUED_CHECKS, ISSUED_MESSAGES, type IssuedGround } from "../../stage";
import { isSerial } from "../arming";
import { ARM_MESSAGES } from "./messages.en";

/** What is looked at before a machine is armed. What could not be looked at yet is null, and no rule speaks of it. */
export interface ArmGround extends IssuedGround {
  hasService: boolean;
  site: { name: string; networkBoot: "on" | "off" } | null;
  /** `macs` are those of its wired ports. */
  machine: { name: string; serial: string; macs: readonly string[] } | null;
  profile: { name: string; hasNetboot: boolean } | null;
  /** The sheet plans a fresh installation by network. */
  isServed: boolean;
  /** Problems as their readers word them. */
  problems: {
    words: string | null;
    imageFiles: readonly string[];
    versions: string | null;
    answers: readonly string[];
  };
  /** The answer file takes the commands by which a machine reports. */
  reports: boolean | null;
  /** The profile says with which words the kernel is started. */
  hasKernelWords: boolean | null;
}

type At =
  | "service"
  | "site.networkBoot"
  | "machine.id"
  | "machine.serial"
  | "machine.ports"
  | "image.id"
  | "image.way"
  | "image.file"
  | "profile.netboot"
  | "profile.answerScript"
  | "answers"
  | "answers.kernelWords";

const rule = rulesOver<ArmGround, At>()("H", ARM_MESSAGES);

const each = <A extends At>(at: A, problems: readonly string[]) =>
  [...new Set(problems)].map((problem) => ({ ...hit("stop", at, { problem }), subject: problem }));

const CHECKS = [
  rule("arm.service", ({ hasService }) =>
    hasService ? null : hit("stop", "service", {}, evidence("DERRICK_BOOT_URL", "not set", "environment")),
  ),
  rule("arm.site", ({ site }) =>
    !site || site.networkBoot === "on"
      ? null
      : hit(
          "stop",
          "site.networkBoot",
          { site: site.name },
          evidence("network boot", site.networkBoot, `site ${site.name}`),
        ),
  ),
  rule("arm.machine", ({ machine }) => (machine ? null : hit("stop", "machine.id", {}))),
  rule("arm.image", ({ profile }) => (profile ? null : hit("stop", "image.id", {}))),
  rule("arm.serial", ({ machine }) =>
    !machine || isSerial(machine.serial)
      ? null
      : hit(
          "stop",
          "machine.serial",
          { machine: machine.name },
          evidence("serial number", machine.serial || "none", "hardware data"),
        ),
  ),
  rule("arm.way", ({ machine, isServed }) => (!machine || isServed ? null : hit("stop", "image.way", {}))),
  rule("arm.ports", ({ machine }) =>
    !machine || machine.macs.length > 0 ? null : hit("stop", "machine.ports", { machine: machine.name }),
  ),
  rule("arm.profile", ({ profile, hasKernelWords }) => {
    const what = profile && !profile.hasNetboot ? "files" : hasKernelWords === false ? "words" : null;
    return profile && what ? hit("stop", "profile.netboot", { profile: profile.name, what }) : null;
  }),
  rule("arm.words", ({ problems: { words } }) =>
    words === null ? null : hit("stop", "answers.kernelWords", { problem: words }),
  ),
  rule("arm.image-file", ({ problems }) => each("image.file", problems.imageFiles)),
  rule("arm.versions", ({ problems: { versions } }) =>
    versions === null ? null : hit("stop", "image.file", { problem: versions }),
  ),
  rule("arm.answers", ({ problems }) => each("answers", problems.answers)),
  rule("arm.report", ({ profile, reports }) =>
    profile && reports === false ? hit("stop", "profile.answerScript", { profile: profile.name }) : null,
  ),
] as const;

/** Before a machine may install itself from this server. */
export const ARM_GATE: Gate<ArmGround> = {
  title: "Arm a machine for one network installation",
  checks: [...CHECKS, ...ISSUED_CHECKS],
  messages: { ...ARM_MESSAGES, ...ISSUED_MESSAGES },
};
