import { deskOf, type Desk } from "@/server/desk";
import { currentHand } from "./hand";

/** The desk of whoever asks: what they change is written under their name. */
export const desk = async (): Promise<Desk> => deskOf(await currentHand());
