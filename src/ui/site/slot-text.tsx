/** A short text of a form in a line. */
export const SlotText = ({
  label,
  value,
  onChange,
  problem = null,
}: {
  label: string;
  value: string;
  onChange: (text: string) => void;
  problem?: string | null;
}) => (
  <label className="w-52">
    <span className="label">{label}</span>
    <input
      className="input"
      value={value}
      maxLength={120}
      autoComplete="off"
      spellCheck={false}
      aria-invalid={problem !== null}
      onChange={(e) => onChange(e.target.value)}
    />
    {problem && <span className="text-[0.86rem] text-error">{problem}</span>}
  </label>
);
