import Link from "next/link";
import { type AnswerFile, type AnswerFileOfSheet, type Gap } from "@/core/answers";
import { fieldWords } from "@/core/sheet";
import { CopyAnswers } from "./copy-answers";
import { Ruled } from "../frame/page";

/** A field of the sheet, by its zone and name, as a way back to it. */
function Field({ build, path }: { build: string; path: string }) {
  const { zone, name } = fieldWords(path);
  return (
    <Link className="link quiet" href={`/builds/${build}${zone ? `#zone-${zone}` : ""}`}>
      {zone} {name}
    </Link>
  );
}

const Gaps = ({ build, gaps }: { build: string; gaps: readonly Gap[] }) => (
  <ul className="mb-2">
    {gaps.map(({ path, message }) => (
      <li
        key={path + message}
        className="grid gap-x-4 border-b py-1 border-base-300 sm:grid-cols-[12rem_1fr]"
      >
        <Field build={build} path={path} />
        <span>{message}</span>
      </li>
    ))}
  </ul>
);

/** The answer file of a sheet, line by line with the fields that they come from; or what the sheet has still to say. */
export function AnswerFileText({ build, answer }: { build: string; answer: AnswerFileOfSheet }) {
  if (answer.kind === "none") return <p className="border-l-4 pl-3 border-info">{answer.why}</p>;
  if (answer.kind === "open")
    return (
      <Ruled title="Nothing is written yet" note="the installer would ask for this, or no file could say it">
        <Gaps build={build} gaps={answer.gaps} />
      </Ruled>
    );
  const { file } = answer;
  return (
    <>
      <Ruled
        title="By hand"
        note="what this file does not say; it holds no password, and of sealed ones the hash"
      >
        <Gaps build={build} gaps={file.byHand} />
      </Ruled>
      <Ruled title={file.name}>
        <p className="mb-2 border-l-4 pl-3 border-warning">
          It erases the drive of the sheet without asking, and nothing by itself where that drive is absent,
          has another size or is in use: read it through before a machine is given it.
        </p>
        <p className="mb-2 flex flex-wrap items-baseline gap-x-4">
          <CopyAnswers build={build} />
          <a className="link" href={`/api/v1/builds/${build}/answers`} download={file.name}>
            fetch {file.name}
          </a>
        </p>
        <Lines build={build} file={file} />
      </Ruled>
    </>
  );
}

/** Where several lines come from one field, it stands beside the first. */
function Lines({ build, file }: { build: string; file: AnswerFile }) {
  return (
    <div
      className="max-h-[36rem] overflow-auto border p-2 text-[0.86rem] leading-snug border-base-300"
      tabIndex={0}
      role="region"
      aria-label={`Text of ${file.name}`}
    >
      <table className="w-full">
        <thead className="sr-only">
          <tr>
            <th>Line</th>
            <th>Text</th>
            <th>From</th>
          </tr>
        </thead>
        <tbody>
          {file.lines.map(({ text, from }, i) => (
            <tr key={i}>
              <td className="value quiet pr-3 text-right align-top">{i + 1}</td>
              <td className="value whitespace-pre-wrap [overflow-wrap:anywhere]">{text}</td>
              <td className="whitespace-nowrap pl-4 text-right align-top">
                {from && file.lines[i - 1]?.from !== from && <Field build={build} path={from} />}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
