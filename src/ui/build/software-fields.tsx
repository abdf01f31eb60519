import { asksEdition, commandProblem, componentProblem, serviceProblem } from "@/core/answers";
import { sourceProblem } from "@/core/network";
import { ParsedField, SelectField } from "../fields/fields";
import { judgedText } from "../fields/numbers";
import { Parameters } from "./parameters";
import type { PartProps } from "./zone-props";

const address = judgedText(sourceProblem);

/** Words of a field of several lines, each of which must fit. */
const words = (problemOf: (word: string) => string | null) => ({
  format: (list: string[]): string => list.join("\n"),
  parse(typed: string): { value: string[] } | { problem: string } {
    const list = [...new Set(typed.split(/[\s,]+/).filter(Boolean))];
    const problem = list.map(problemOf).find((p) => p !== null);
    return problem ? { problem } : { value: list };
  },
});
const COMPONENTS = words(componentProblem);
/** Commands of a shell, one on each line. */
const COMMANDS = {
  format: (list: string[]): string => list.join("\n"),
  parse(typed: string): { value: string[] } | { problem: string } {
    const list = typed
      .split("\n")
      .map((line) => line.trim())
      .filter(Boolean);
    const problem = list.map(commandProblem).find((p) => p !== null);
    return problem ? { problem } : { value: list };
  },
};
const SERVICES = words(serviceProblem);

const namesOf = (editions: readonly { name: string }[], chosen: string): string[] => [
  ...new Set([...editions.map((e) => e.name), chosen].filter(Boolean)),
];

/** Where packages come from, which of them are installed, and what starts with the system. */
export default function SoftwareFields({ view, sheet, edit, marks }: PartProps) {
  const { answers } = sheet;
  const { site, profile } = view.context;
  const usual = site?.sources.find((s) => s.family === profile?.profile)?.url ?? "";
  return (
    <div className="grid gap-x-8 gap-y-3 md:grid-cols-2">
      <ParsedField
        path="answers.source"
        label="Package source"
        marks={marks("answers.source")}
        value={answers.source}
        placeholder="installation medium"
        {...address}
        onChange={(source) => edit({ "answers.source": source })}
        hint={
          usual && usual !== answers.source ? (
            <button type="button" className="link" onClick={() => edit({ "answers.source": usual })}>
              site: <span className="value">{usual}</span>
            </button>
          ) : usual ? (
            "site default"
          ) : undefined
        }
      />
      <ParsedField
        path="answers.proxy"
        label="Proxy"
        marks={marks("answers.proxy")}
        value={answers.proxy}
        placeholder="none"
        {...address}
        onChange={(proxy) => edit({ "answers.proxy": proxy })}
        hint={
          site?.proxy && site.proxy !== answers.proxy
            ? `site default: ${site.proxy}`
            : site?.proxy
              ? "site default"
              : undefined
        }
      />
      <ParsedField
        path="answers.components"
        label="Packages (groups begin with @)"
        marks={marks("answers.components")}
        value={answers.components}
        rows={3}
        {...COMPONENTS}
        onChange={(components) => edit({ "answers.components": components })}
        hint={answers.components.length === 0 ? "default selection of the installer" : undefined}
      />
      <ParsedField
        path="answers.services"
        label="Services to enable at boot"
        marks={marks("answers.services")}
        value={answers.services}
        rows={3}
        {...SERVICES}
        onChange={(services) => edit({ "answers.services": services })}
        hint={answers.services.length === 0 ? "defaults of the packages" : undefined}
      />
      {profile && asksEdition(profile) && (
        <SelectField
          path="answers.edition"
          label="OS edition"
          marks={marks("answers.edition")}
          value={answers.edition}
          empty="choose…"
          options={namesOf(profile.editions, answers.edition).map((name) => ({ value: name, text: name }))}
          onChange={(edition) => edit({ "answers.edition": edition })}
          hint={profile.editions.find((e) => e.name === answers.edition)?.suits}
        />
      )}
      <ParsedField
        path="answers.finish"
        label="Commands at the end of the installation"
        marks={marks("answers.finish")}
        value={answers.finish}
        rows={3}
        {...COMMANDS}
        onChange={(finish) => edit({ "answers.finish": finish })}
        hint="One shell command per line, run once as root in the new system. Others can read the file, so use a parameter for every secret."
      />
      <ParsedField
        path="answers.firstStart"
        label="First-boot commands (network installation)"
        marks={marks("answers.firstStart")}
        value={answers.firstStart}
        rows={3}
        {...COMMANDS}
        onChange={(firstStart) => edit({ "answers.firstStart": firstStart })}
        hint="Each runs once after the machine has contacted Derrick and reports its result; the first failure stops the rest."
      />
      <div className="min-w-0 sm:col-span-2">
        <Parameters {...{ view, sheet, edit, marks }} />
      </div>
    </div>
  );
}
