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
    label: "Keyboard layout of your console",
    hint: "your own keyboard, or the layout set in the remote console",
  },
  installer: { label: "Keyboard layout of the installer", hint: "from zone F" },
  system: { label: "Keyboard layout of the installed system", hint: "after its first boot" },
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
                ? `Derrick has no keyboard layout named "${names[which]}": choose one.`
                : WORDS[which].hint
            }
            value={all.has(names[which]) ? names[which] : ""}
            empty="choose…"
            options={options}
            onChange={(value) => onChange({ ...names, [which]: value })}
          />
        ))}
      </div>
      {sends && reads && moved.length > 0 && (
        <Unfold title={`${moved.length} characters change`}>
          <ul className="value flex flex-wrap gap-x-4 gap-y-1" aria-label="Characters that change">
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
