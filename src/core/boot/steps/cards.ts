import { takes } from "../../estimate";
import { HAZARD, step, type Step } from "../../stage";
import type { CardModuleView, SyncView } from "../cards";
import type { BootGround } from "../ground";

/** Half an hour is what two cards of a module usually take; twice that where nobody has read anything. */
const USUAL_SECONDS = { likely: 1800, late: 3600 };

/** From the last reading on: what is left of a sync, likely and late. */
function left({ readings, endsAt, lateAt }: SyncView): { likely: number; late: number } {
  const last = readings.at(-1)?.at;
  const from = (iso: string): number => Math.max(60, (Date.parse(iso) - Date.parse(last ?? iso)) / 1000);
  if (!last || !endsAt) return USUAL_SECONDS;
  const likely = from(endsAt);
  return { likely, late: lateAt ? Math.max(likely, from(lateAt)) : likely * 2 };
}

function make(
  module: CardModuleView,
  { name, primary, removable }: BootGround["sheet"]["boot"]["cards"],
): Step {
  return step("cards-mirror", "C", takes(180, 480), {
    title: `Make the mirror of the boot cards: ${name}`,
    place: "console",
    hazards: [HAZARD.erase],
    do: [
      `In the set-up pages of the ${module.module}: mirror of both cards, name ${name}.`,
      ...(primary ? [`Primary card: ${primary}; the other one is overwritten from it.`] : []),
      ...(removable ? [`Shown to the system as removable: ${removable}.`] : []),
      "Write down the serial of each card with its slot.",
    ],
    see: [name, "A percentage that rises"],
    never: ["The slots in the other order: what stands on the primary card is what stays"],
  });
}

function whole(sync: SyncView | null): Step {
  const { likely, late } = sync ? left(sync) : USUAL_SECONDS;
  return step("cards-whole", "C", takes(Math.round(likely), Math.round(late)), {
    title: "Wait until both boot cards are whole",
    kind: "wait",
    place: "console",
    screen: "boot cards whole",
    do: [
      "Read the percentage twice, some minutes apart, and type it into the sheet: it tells when this ends.",
    ],
    see: ["100 %, or healthy for both cards"],
    expected: [
      {
        looks: "The secondary card unhealthy, the mirror degraded, a red light at the module",
        means: "Expected until the sync has ended; from then on it is a fault, and the card is changed.",
      },
    ],
    must: "A restart in the middle of the sync begins it anew, and a mirror that was never whole starts from one card.",
  });
}

/** What a module of boot cards asks for before anything is installed on it. */
export function cardSteps({ boot, sheet }: BootGround): Step[] {
  const cards = boot?.cards;
  if (!cards?.isTarget) return [];
  const isPair = cards.cards.length > 1;
  const makes = !isPair && sheet.boot.cards.name.trim() !== "";
  return [
    ...(makes ? [make(cards, sheet.boot.cards)] : []),
    ...(makes || (isPair && cards.mirror?.isWhole === false) ? [whole(cards.sync)] : []),
  ];
}
