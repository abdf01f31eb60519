import { z } from "zod";
import { WAYS } from "../estimate";
import { MODES } from "./mode";

const text = z.string();

/**
 * What can be seen at a machine or beside it, as data: its words are made from it, and whatever looks for it by itself
 * reads it. It never holds the answer to a guard.
 */
export const sightSchema = z.discriminatedUnion("of", [
  /** One thing that a screen of an installer shows, in the words of its profile. */
  z.object({ of: z.literal("screen"), screen: text, shows: text }),
  /** A text that a program or a page of a device prints. */
  z.object({ of: z.literal("output"), shows: text }),
  /** What stands on the machine itself, or on the first page of its management controller. */
  z.object({ of: z.literal("label"), part: z.enum(["serial number", "name", "asset tag"]), reads: text }),
  /** Its memory and processors, as they were recorded. */
  z.object({ of: z.literal("hardware"), machine: text }),
  /** A drive by its look and its contents; its serial number is what a guard asks for, so nothing of it stands here. */
  z.object({ of: z.literal("drive"), look: text, holds: text }),
  /** A device beside the machine; its size in bytes, null where nobody recorded it. */
  z.object({ of: z.literal("device"), name: text, sizeBytes: z.number().nullable() }),
  z.object({ of: z.literal("checksum"), value: text }),
  /** A medium at the machine; `mac` is the port that asks where it is the network. */
  z.object({
    of: z.literal("medium"),
    medium: z.enum(WAYS),
    is: z.enum(["in", "out"]),
    holds: text,
    mac: text.nullable(),
  }),
  /** A line of the firmware's list; `listed` is how it calls the medium, null where that is not known. */
  z.object({ of: z.literal("boot entry"), name: text, listed: text.nullable(), mode: z.enum(MODES) }),
  /** A setting of the firmware, as it is then. */
  z.object({ of: z.literal("setting"), is: text }),
  /** What a start ends in. */
  z.object({ of: z.literal("boot"), ends: z.enum(["installed system", "installer", "no device"]) }),
  /** A system that says its name on the console. */
  z.object({ of: z.literal("system"), name: text }),
  z.object({ of: z.literal("address"), answers: text }),
  /** What the boot service tells of a machine. */
  z.object({ of: z.literal("boot service"), tells: z.enum(["armed", "listed"]), machine: text }),
  z.object({ of: z.literal("acceptance") }),
  /** What only a person can judge. */
  z.object({ of: z.literal("statement"), says: text }),
]);
export type Sight = z.infer<typeof sightSchema>;
export type SightOf<Of extends Sight["of"]> = Extract<Sight, { of: Of }>;

export const statement = (says: string): SightOf<"statement"> => ({ of: "statement", says });
export const output = (shows: string): SightOf<"output"> => ({ of: "output", shows });
