import type { SetScript } from "@/core/storage";
import { CopyText } from "../frame/copy-text";
import { Ruled } from "../frame/page";

/** The scripts of a sheet, each to be read, copied or fetched; where none is written it says why. */
export function SetScripts({ build, scripts }: { build: string; scripts: readonly SetScript[] }) {
  if (scripts.length === 0)
    return <p className="quiet">This sheet creates no additional pool or array, so there is no script.</p>;
  return scripts.map((script) => (
    <Ruled key={script.id} title={script.title} note={script.text ? script.file : undefined}>
      {script.text === null ? (
        <p className="border-l-4 pl-3 border-error">{script.why}</p>
      ) : (
        <>
          <p className="mb-2 border-l-4 pl-3 border-warning">
            All data on these drives will be lost. Read the whole script before you run it as root on the
            machine itself.
          </p>
          <p className="mb-2 flex flex-wrap items-baseline gap-x-4">
            <CopyText text={script.text} />
            <a className="link" href={`/api/v1/builds/${build}/scripts/${script.id}`} download={script.file}>
              Download {script.file}
            </a>
          </p>
          <pre
            tabIndex={0}
            aria-label={`Script ${script.file}`}
            className="value max-h-[32rem] overflow-auto border p-3 text-[0.86rem] border-base-300"
          >
            {script.text}
          </pre>
        </>
      )}
    </Ruled>
  ));
}
