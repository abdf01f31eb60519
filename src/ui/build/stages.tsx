import type { ReactNode } from "react";
import type { Zone } from "@/core/finding";
import { AnswersZone } from "./answers-zone";
import { BootZone } from "./boot-zone";
import { AcceptZone, HandOverZone, SettleZone } from "./closing-zones";
import { ImageZone } from "./image-zone";
import { MachineZone } from "./machine-zone";
import { NetworkZone } from "./network-zone";
import { RunZone } from "./run-zone";
import { StorageZone } from "./storage-zone";
import type { ZoneProps } from "./zone-props";

/** What each stage of `core/sheet/stages.ts` shows when its band stands open; one without a line here shows nothing. */
export const STAGE_VIEWS: Partial<Record<Zone, (props: ZoneProps) => ReactNode>> = {
  A: MachineZone,
  B: ImageZone,
  C: BootZone,
  D: StorageZone,
  E: NetworkZone,
  F: AnswersZone,
  H: RunZone,
  I: SettleZone,
  J: AcceptZone,
  K: HandOverZone,
};
