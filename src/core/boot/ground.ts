import type { Profile } from "../image";
import type { MediaGround } from "../media";
import type { StorageGround } from "../storage";
import type { BootPicture } from "./picture/view";
import type { BootSlice } from "./slice";

/** What the start of a build follows from: the medium, the drive that is started from afterwards, and the firmware. */
export interface BootPlan extends MediaGround {
  sheet: MediaGround["sheet"] &
    StorageGround["sheet"] & { boot: BootSlice; network: { port: string | null } };
  now: string;
  /** Every OS profile: by its marks the drive of the running system is known. */
  profiles: readonly Profile[];
}

/** What the rules about the start look at: also what is started at the moments of the build; null without a machine. */
export interface BootGround extends BootPlan {
  boot: BootPicture | null;
}
