import { demoDesk } from "@/server/demo";
import { deskOf, type Desk } from "@/server/desk";
import { currentHand } from "./hand";
import { isLooking } from "./look";

/** The desk of whoever asks: what they change is written under their name. Who looks at the demo has a desk there. */
export const desk = async (): Promise<Desk> => {
  const hand = await currentHand();
  return (await isLooking()) ? demoDesk(hand) : deskOf(hand);
};
