import { bootReader } from "./boot";
import { bootOrderReader } from "./boot-order";
import { filesystemReader, partitionReader } from "./disks";
import { efiReader, machineReader } from "./formats";
import { keyboardReader } from "./keyboard";
import { ipReader, portNameReader } from "./network";
import { raidReader } from "./raid";
import type { TruthReader } from "./reader";
import { lvmReader, mdReader } from "./volumes";
import { zfsReader } from "./zfs";

export { compareFolder, type Compared, type Outcome, type TruthReader } from "./reader";

/** Every shape of measured cases that Derrick is compared with. A new domain adds its reader here. */
export const READERS: readonly TruthReader[] = [
  bootReader,
  bootOrderReader,
  machineReader,
  efiReader,
  keyboardReader,
  ipReader,
  portNameReader,
  zfsReader,
  raidReader,
  mdReader,
  lvmReader,
  partitionReader,
  filesystemReader,
];
