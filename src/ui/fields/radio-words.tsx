import { RadioWord } from "./radio-word";

/** A choice of one among a few words: which rows of a list are shown. */
export const RadioWords = <T extends string>({
  label,
  name,
  words,
  chosen,
  onChoose,
}: {
  label: string;
  /** Of the radios, the same on the page for no other choice. */
  name: string;
  /** What is chosen from, and how each is called. */
  words: Readonly<Record<T, string>>;
  chosen: T;
  onChoose: (which: T) => void;
}) => (
  <div role="radiogroup" aria-label={label} className="flex flex-wrap gap-x-4">
    {(Object.keys(words) as T[]).map((key) => (
      <RadioWord
        key={key}
        name={name}
        text={words[key]}
        checked={chosen === key}
        onChoose={() => onChoose(key)}
      />
    ))}
  </div>
);
