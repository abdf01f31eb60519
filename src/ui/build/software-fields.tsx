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
    <div className="grid gap-x-8 gap-y-3 sm:grid-cols-2">
      <ParsedField
        path="answers.source"
        label="Packages from"
        marks={marks("answers.source")}
        value={answers.source}
        placeholder="the medium itself"
        {...address}
        onChange={(source) => edit({ "answers.source": source })}
        hint={
          usual && usual !== answers.source ? (
            <button type="button" className="link" onClick={() => edit({ "answers.source": usual })}>
              the site&apos;s: <span className="value">{usual}</span>
            </button>
          ) : usual ? (
            "the site's"
          ) : undefined
        }
      />
      <ParsedField
        path="answers.proxy"
        label="By the proxy"
        marks={marks("answers.proxy")}
        value={answers.proxy}
        placeholder="none"
        {...address}
        onChange={(proxy) => edit({ "answers.proxy": proxy })}
        hint={
          site?.proxy && site.proxy !== answers.proxy
            ? `the site's is ${site.proxy}`
            : site?.proxy
              ? "the site's"
              : undefined
        }
      />
      <ParsedField
        path="answers.components"
        label="Packages, groups of them under @"
        marks={marks("answers.components")}
        value={answers.components}
        rows={3}
        {...COMPONENTS}
        onChange={(components) => edit({ "answers.components": components })}
        hint={answers.components.length === 0 ? "what the installer takes by itself" : undefined}
      />
      <ParsedField
        path="answers.services"
        label="Services at start"
        marks={marks("answers.services")}
        value={answers.services}
        rows={3}
        {...SERVICES}
        onChange={(services) => edit({ "answers.services": services })}
        hint={answers.services.length === 0 ? "what the packages start by themselves" : undefined}
      />
      {profile && asksEdition(profile) && (
        <SelectField
          path="answers.edition"
          label="Edition"
          marks={marks("answers.edition")}
          value={answers.edition}
          empty="choose …"
          options={namesOf(profile.editions, answers.edition).map((name) => ({ value: name, text: name }))}
          onChange={(edition) => edit({ "answers.edition": edition })}
          hint={profile.editions.find((e) => e.name === answers.edition)?.suits}
        />
      )}
      <ParsedField
        path="answers.finish"
        label="Commands at the end, in the new system"
        marks={marks("answers.finish")}
        value={answers.finish}
        rows={3}
        {...COMMANDS}
        onChange={(finish) => edit({ "answers.finish": finish })}
        hint="one on each line, for a shell, run once by the super-user; others can read the file, so a secret is named as a parameter"
      />
      <ParsedField
        path="answers.firstStart"
        label="Commands at the first start, over the network"
        marks={marks("answers.firstStart")}
        value={answers.firstStart}
        rows={3}
        {...COMMANDS}
        onChange={(firstStart) => edit({ "answers.firstStart": firstStart })}
        hint="each once, after the machine has found Derrick; its state is told, and the first that fails stops the rest"
      />
      <div className="min-w-0 sm:col-span-2">
        <Parameters {...{ view, sheet, edit, marks }} />
      </div>
    </div>
  );
}
