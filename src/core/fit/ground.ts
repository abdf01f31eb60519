import type { CompatNote } from "../compat";
import type { Roads } from "../image";
import type { MachineContext } from "../machine";
import type { MediaGround } from "../media";
import type { StorageGround } from "../storage";
import type { MachineSlice } from "./slice";

/** What the rules about the machine under the wanted system look at. */
export interface FitGround
  extends
    Pick<Roads, "fromMedia">,
    Pick<MachineContext, "now" | "today" | "timeZone" | "rivals" | "pasts" | "circuit">,
    Pick<MediaGround, "machine" | "image" | "profile"> {
  sheet: {
    machine: MachineSlice;
    image: MediaGround["sheet"]["image"];
    storage: StorageGround["sheet"]["storage"];
    network: { port: string | null };
    boot: MediaGround["sheet"]["boot"];
  };
  compat: readonly CompatNote[];
}
