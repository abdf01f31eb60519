import type { Procedure } from "@/core/procedure";
import type { CardScreen } from "@/core/answers";

import { AnswerCard } from "../build/answer-card";

/** The answer card of the frozen plan, beside the run, with the screen that is at hand marked. */
export function CardBeside({
  card,
  plan,
  current,
}: {
  card: readonly CardScreen[];
  plan: Procedure;
  current: number;
}) {
  const place = new Map(plan.steps.map((step, i) => [step.id, i]));
  const next = card.find((screen) => (place.get(screen.id) ?? -1) >= current);
  return (
    <section aria-label="Answer card" className="mt-4 border-t pt-3 border-base-300">
      {plan.steps[current]?.kind === "read back" ? (
        <p className="quiet">
          The answer card shows the value that is asked for above. It is available again once you have entered
          the value from the console.
        </p>
      ) : (
        <AnswerCard screens={card} current={next?.id ?? null} />
      )}
    </section>
  );
}
