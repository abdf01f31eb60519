import Link from "next/link";
import { type AnswerFile, type AnswerFileOfSheet, type Gap } from "@/core/answers";
import { fieldWords } from "@/core/sheet";
import { CopyAnswers } from "./copy-answers";
import { Ruled } from "../frame/page";

/** The sheet that files are of, and where the values of its fields come from. */
interface Sheet {
  build: string;
  origin: (path: string) => string;
}

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

/** What is said of one file: where it is fetched, and its lines with their fields. */
function File({
  build,
  origin,
  file,
  url,
  warns,
}: Sheet & { file: AnswerFile; url: string; warns?: string }) {
  const at = `${url}${url.includes("?") ? "&" : "?"}file=${encodeURIComponent(file.name)}`;
  return (
    <Ruled title={file.name} note={file.lines.length === 0 ? "empty, but the installer asks for it" : ""}>
      {warns && <p className="mb-2 border-l-4 pl-3 border-warning">{warns}</p>}
      <p className="mb-2 flex flex-wrap items-baseline gap-x-4">
        {file.lines.length > 0 && <CopyAnswers url={at} />}
        <a className="link" href={at} download={file.name}>
          Download {file.name}
        </a>
      </p>
      {file.lines.length > 0 && <Lines {...{ build, origin, file }} />}
    </Ruled>
  );
}

/** The answer file of a sheet, line by line with the fields that they come from; or what the sheet has still to say. */
export function AnswerFileText({ build, origin, answer }: Sheet & { answer: AnswerFileOfSheet }) {
  if (answer.kind === "none") return <p className="border-l-4 pl-3 border-info">{answer.why}</p>;
  if (answer.kind === "open")
    return (
      <Ruled title="Answer file not generated" note="these values are missing or not supported by the format">
        <Gaps build={build} gaps={answer.gaps} />
      </Ruled>
    );
  const url = `/api/v1/builds/${build}/answers`;
  return (
    <>
      <Ruled
        title="Manual"
        note="not covered by this file. The file contains no password in clear: only hashes of stored ones, and secret parameters that its commands use"
      >
        <Gaps build={build} gaps={answer.file.byHand} />
      </Ruled>
      <File {...{ build, origin, url }} file={answer.file} warns={answer.erases} />
      {answer.also.map((file) => (
        <File key={file.name} {...{ build, origin, url, file }} />
      ))}
    </>
  );
}

/** What an image of the system reads at its first start: folded up, since most sheets install. */
export function ImageSeed({ build, origin, seed }: Sheet & { seed: AnswerFileOfSheet | null }) {
  if (!seed || seed.kind === "none") return null;
  const url = `/api/v1/builds/${build}/answers?of=image`;
  return (
    <Ruled
      title="For an image that is already installed"
      note="a guest, or a drive that was written as a whole"
    >
      <details>
        <summary className="cursor-pointer py-1">
          {seed.kind === "open"
            ? `Seed not generated: ${seed.gaps.length} ${seed.gaps.length === 1 ? "value is" : "values are"} missing`
            : `${1 + seed.also.length} seed files: identity, locale, accounts and network`}
        </summary>
        {seed.kind === "open" ? (
          <Gaps build={build} gaps={seed.gaps} />
        ) : (
          <>
            <p className="mb-2 max-w-prose">
              {seed.erases} Save them on a small volume named cidata, as user-data, meta-data and
              network-config.
            </p>
            <Gaps build={build} gaps={[seed.file, ...seed.also].flatMap((f) => f.byHand)} />
            {[seed.file, ...seed.also].map((file) => (
              <File key={file.name} {...{ build, origin, url, file }} />
            ))}
          </>
        )}
      </details>
    </Ruled>
  );
}

/** Where several lines come from one field, it stands beside the first. */
function Lines({ build, origin, file }: Sheet & { file: AnswerFile }) {
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
            <th>Source</th>
          </tr>
        </thead>
        <tbody>
          {file.lines.map(({ text, from }, i) => (
            <tr key={i}>
              <td className="value quiet pr-3 text-right align-top">{i + 1}</td>
              <td className="value whitespace-pre-wrap align-top [overflow-wrap:anywhere]">{text}</td>
              <td className="pl-4 text-right align-top sm:whitespace-nowrap">
                {from && file.lines[i - 1]?.from !== from && (
                  <>
                    <Field build={build} path={from} />
                    {origin(from) && (
                      <span className="quiet block lg:inline">
                        <span className="hidden lg:inline"> · </span>
                        {origin(from)}
                      </span>
                    )}
                  </>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
