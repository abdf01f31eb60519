import { takes } from "../../estimate";
import { HAZARD, operation, output, statement, type Operation } from "../../work";
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
): Operation {
  return operation("cards-mirror", "C", takes(180, 480), {
    title: `Create the mirror of the boot cards: ${name}`,
    kind: "act",
    place: "console",
    hazards: [HAZARD.erase],
    do: [
      `In the setup of the ${module.module}: mirror both cards, name ${name}.`,
      ...(primary ? [`Primary card: ${primary}; the other one is overwritten from it.`] : []),
      ...(removable ? [`Report the mirror to the system as removable: ${removable}.`] : []),
      "Record the serial number of each card with its slot.",
    ],
    sees: [output(name), statement("A rising percentage")],
    never: [statement("The slots in the other order: the contents of the primary card are kept")],
  });
}

function whole(sync: SyncView | null): Operation {
  const { likely, late } = sync ? left(sync) : USUAL_SECONDS;
  return operation("cards-whole", "C", takes(Math.round(likely), Math.round(late)), {
    title: "Wait: the mirror of the boot cards completes",
    kind: "wait",
    place: "console",
    measures: [{ of: "wait", what: "boot cards whole" }],
    do: ["Read the percentage twice, some minutes apart, and enter it on the sheet to get the end time."],
    sees: [statement("100 %, or healthy for both cards")],
    normal: [
      {
        sight: statement("The secondary card unhealthy, the mirror degraded, a red light on the module"),
        means: "Expected until the mirror is complete; afterwards it is a fault: replace the card.",
      },
    ],
    must: "A restart begins the mirroring again, and an incomplete mirror boots from one card.",
  });
}

/** What a module of boot cards asks for before anything is installed on it. */
export function cardSteps({ boot, sheet }: BootGround): Operation[] {
  const cards = boot?.cards;
  if (!cards?.isTarget) return [];
  const isPair = cards.cards.length > 1;
  const makes = !isPair && sheet.boot.cards.name.trim() !== "";
  return [
    ...(makes ? [make(cards, sheet.boot.cards)] : []),
    ...(makes || (isPair && cards.mirror?.isWhole === false) ? [whole(cards.sync)] : []),
  ];
}
