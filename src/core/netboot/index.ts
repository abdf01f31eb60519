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
export { answerTo, NO_MAC, UNARMED, type Given } from "./answer";
export { answerNames, kernelWords, type BootAddresses, type BootHost } from "./words";
export { ipxeFirst, ipxeInstall, ipxeLocal, ipxeWait, TRIES, type BootFiles } from "./script/ipxe";
export { grubFirst, grubInstall, grubLocal, grubWait } from "./script/grub";
export { firstBootScript, type FirstBoot } from "./script/first-boot";
export { firstBootCommands } from "./script/unit";
export { BOOT_CLIENTS, loaders, type BootClient, type BootPlan } from "./dhcp/clients";
export { dnsmasqBoot, dnsmasqProxy, iscBoot, keaBoot } from "./dhcp/write";
export { machineOf } from "./adopt";
export { KERNEL_HEAD, kernelVersion, ModuleWalk } from "./versions";
export { judgeBootConfigs, type BootProblem } from "./dhcp/judge";
