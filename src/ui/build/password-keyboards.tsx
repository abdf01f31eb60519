import { layouts, movedCharacters } from "@/core/identity";
import { SelectField } from "../fields/fields";
import { Unfold } from "../fields/unfold";

export interface BoardNames {
  sends: string;
  installer: string;
  system: string;
}

const WORDS: Readonly<Record<keyof BoardNames, { label: string; hint: string }>> = {
  sends: {
    label: "The keys are sent by",
    hint: "your own keyboard, or the layout that the remote console is set to",
  },
  installer: { label: "The installer takes them for", hint: "zone F says so" },
  system: { label: "The console of the system, later", hint: "once it has started by itself" },
};

/** Three keyboards: what sends, what reads, what reads later; with the characters that move between the first two. */
export function PasswordKeyboards({
  names,
  onChange,
}: {
  names: BoardNames;
  onChange: (names: BoardNames) => void;
}) {
  const all = layouts();
  const options = [...all].map(([value, { title }]) => ({ value, text: `${value}: ${title}` }));
  const [sends, reads] = [all.get(names.sends), all.get(names.installer)];
  const moved = sends && reads ? movedCharacters({ sends, reads }) : [];
  return (
    <>
      <div className="grid gap-y-2">
        {(["sends", "installer", "system"] as const).map((which) => (
          <SelectField
            key={which}
            path={`keyboard.${which}`}
            label={WORDS[which].label}
            hint={
              names[which] !== "" && !all.has(names[which])
                ? `no layout of Derrick's is named "${names[which]}": choose one`
                : WORDS[which].hint
            }
            value={all.has(names[which]) ? names[which] : ""}
            empty="choose …"
            options={options}
            onChange={(value) => onChange({ ...names, [which]: value })}
          />
        ))}
      </div>
      {sends && reads && moved.length > 0 && (
        <Unfold title={`${moved.length} characters come out differently`}>
          <ul
            className="value flex flex-wrap gap-x-4 gap-y-1"
            aria-label="Characters that come out differently"
          >
            {moved.map(({ character, becomes }) => (
              <li key={character}>
                {character === " " ? "blank" : character} → {becomes === "" ? "nothing" : becomes}
              </li>
            ))}
          </ul>
        </Unfold>
      )}
    </>
  );
}
