import type { MediaGround } from "../media";
import type { StorageGround } from "../storage";
import type { BootSlice } from "./slice";

/** What the rules about the start look at: the medium, the drive that is started from afterwards, and the firmware. */
export interface BootGround extends MediaGround {
  sheet: MediaGround["sheet"] &
    StorageGround["sheet"] & { boot: BootSlice; network: { port: string | null } };
}
