import type { Figure } from "@/core/estimate";

/** A computed value that opens to its working: the formula, and each input with its source. */
export function FigureValue({
  text,
  figure,
  words = false,
}: {
  text: string;
  figure: Figure;
  words?: boolean;
}) {
  return (
    <details className="inline-block align-top">
      <summary
        className={`${words ? "" : "value"} cursor-pointer underline decoration-dotted underline-offset-4`}
      >
        {text}
      </summary>
      <div className="mt-1 border-l-2 pl-2 text-[0.86rem] border-base-300">
        <p>{figure.formula}</p>
        <dl className="grid grid-cols-[auto_auto_auto] gap-x-3">
          {figure.inputs.map((i) => (
            <div key={i.name} className="contents">
              <dt>{i.name}</dt>
              <dd className="value">{i.value}</dd>
              <dd className="quiet">{i.source}</dd>
            </div>
          ))}
        </dl>
      </div>
    </details>
  );
}
