import type { LinePair } from "@/core/answers";
import { Ruled } from "../frame/page";

interface Props {
  choices: readonly { value: string; words: string }[];
  chosen: string;
  beside: { what: string; pairs: readonly (LinePair | null)[] | null; why: string } | null;
}

/** The file beside an earlier letter or another machine's: only what differs, with the lines around it. */
export function AnswersBeside({ choices, chosen, beside }: Props) {
  if (choices.length === 0) return null;
  return (
    <Ruled
      title="Compare with another file"
      note="of another machine with the same plan, or of an earlier revision"
    >
      <form className="flex flex-wrap items-end gap-3" action="#beside" id="beside">
        <select
          name="beside"
          aria-label="Compare with"
          className="select w-auto min-w-96 max-w-full"
          defaultValue={chosen}
        >
          {choices.map(({ value, words }) => (
            <option key={value} value={value}>
              {words}
            </option>
          ))}
        </select>
        <button type="submit" className="btn">
          Compare
        </button>
      </form>
      {chosen !== "" && <Compared beside={beside} />}
    </Ruled>
  );
}

function Compared({ beside }: Pick<Props, "beside">) {
  if (!beside) return <p className="mt-2">That build sheet or revision no longer exists.</p>;
  const { what, pairs, why } = beside;
  if (!pairs) return <p className="mt-2">{why}</p>;
  if (pairs.every((pair) => pair === null || pair.same))
    return <p className="mt-2">✓ Identical to the file of {what}.</p>;
  return (
    <table className="table mt-2 text-[0.86rem]" aria-label={`Lines that differ from ${what}`}>
      <thead>
        <tr>
          <th className="w-1/2">This file</th>
          <th>{what}</th>
        </tr>
      </thead>
      <tbody>
        {pairs.map((pair, i) =>
          pair === null ? (
            <tr key={i}>
              <td colSpan={2} className="quiet">
                …
              </td>
            </tr>
          ) : (
            <tr key={i} className="align-top">
              <Side line={pair.here} same={pair.same} />
              <Side line={pair.there} same={pair.same} />
            </tr>
          ),
        )}
      </tbody>
    </table>
  );
}

/** A line that differs stands out by its weight; one that is missing is said to be. */
const Side = ({ line, same }: { line: LinePair["here"]; same: boolean }) => (
  <td className={`value whitespace-pre-wrap [overflow-wrap:anywhere] ${same ? "quiet" : "font-semibold"}`}>
    {line ? line.text : <span className="quiet font-normal">(line missing)</span>}
  </td>
);
