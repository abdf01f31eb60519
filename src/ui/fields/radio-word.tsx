/** A word that is one of several choices: the chosen one is underlined heavily, whatever table or row it stands in. */
export function RadioWord({
  name,
  text,
  checked,
  onChoose,
}: {
  name: string;
  text: string;
  checked: boolean;
  onChoose: () => void;
}) {
  return (
    <label
      className={`relative block w-fit cursor-pointer border-b-2 pb-0.5 has-focus-visible:outline-2 ${checked ? "border-current font-semibold" : "border-transparent"}`}
    >
      <input type="radio" className="sr-only" name={name} checked={checked} onChange={onChoose} />
      {text}
    </label>
  );
}
