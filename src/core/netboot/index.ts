export {
  armingSchema,
  bootEventSchema,
  callerSchema,
  isSerial,
  plain,
  REPORTS,
  type Arming,
  type BootEvent,
  type Caller,
  type LoggedBoot,
} from "./arming";
export {
  armingState,
  ArmingWalk,
  fileClosed,
  isClosed,
  neededOf,
  reportClosed,
  STAGES,
  startClosed,
  treeClosed,
  type ArmingState,
  type Stage,
} from "./state";
export {
  atOnceFigure,
  isFed,
  lastTurnSeconds,
  outOfTime,
  roundsSeconds,
  waitsFor,
  type ServerRates,
} from "./capacity";
export { heardAt } from "./heard";
export { macIn, toldIn } from "./query";
export { codeWords, isCode, LONGEST_CODE, newCode } from "./code";
export { answerTo, NO_MAC, UNARMED, type Given } from "./answer";
export {
  answerNames,
  kernelWords,
  packedWords,
  PACKED_NAME,
  type BootAddresses,
  type BootHost,
} from "./words";
export {
  ipxeCode,
  ipxeFirst,
  ipxeInstall,
  ipxeLocal,
  ipxeMedium,
  ipxeWait,
  TRIES,
  type BootFiles,
} from "./script/ipxe";
export { grubCode, grubFirst, grubInstall, grubLocal, grubWait } from "./script/grub";
export { firstBootScript, type FirstBoot } from "./script/first-boot";
export { packedFiles } from "./cpio";
export { trusting } from "./script/trust";
export { firstBootCommands } from "./script/unit";
export { BOOT_CLIENTS, loaders, type BootClient, type BootPlan } from "./dhcp/clients";
export { dnsmasqBoot, dnsmasqProxy, iscBoot, keaBoot } from "./dhcp/write";
export { machineOf } from "./adopt";
export { KERNEL_HEAD, kernelVersion, ModuleWalk } from "./versions";
export { judgeBootConfigs, type BootProblem } from "./dhcp/judge";
export { ARM_GATE, type ArmGround } from "./gate/gate";
