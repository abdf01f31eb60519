"use client";

/**
 * Whether the machine has to show a code before it is given anything. What is secret in its files is named where it would go to
 * whoever claims to be the machine.
 */
export function CodeChoice({
  asksCode,
  choose,
  secrets,
}: {
  asksCode: boolean;
  choose: (asksCode: boolean) => void;
  /** What is secret in what is given out, in words. */
  secrets: readonly string[];
}) {
  const choices = [
    {
      value: true,
      title: "The machine shows a code first",
      words:
        "The machine asks for it at its console: iPXE waits five minutes for a key and then starts from the disk, GRUB waits until it is typed. The board shows the code once the machine is armed, and a script that carries it for a boot medium.",
    },
    {
      value: false,
      title: "MAC and serial number are enough, and nobody need be at the console",
      words:
        secrets.length > 0
          ? `Whoever claims both on the install network while the machine is armed gets ${secrets.join(" and ")}.`
          : "Nothing in the files is secret: no password is sealed for them, and no secret parameter.",
    },
  ];
  return (
    <fieldset className="mt-3">
      <legend>Who is given the installation</legend>
      {choices.map(({ value, title, words }) => (
        <label key={title} className="mt-1 flex gap-2">
          <input
            type="radio"
            className="radio mt-1 radio-sm"
            name="asksCode"
            checked={asksCode === value}
            onChange={() => choose(value)}
          />
          <span>
            {title}
            <span className={!value && secrets.length > 0 ? "block text-error" : "quiet block"}>{words}</span>
          </span>
        </label>
      ))}
    </fieldset>
  );
}
