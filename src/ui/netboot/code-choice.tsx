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
      title: "Console code required",
      words:
        "Someone types a code at the console of the machine: iPXE waits five minutes for a key and then boots from the disk, GRUB waits without limit. The code and a script for a boot medium are shown once the machine is armed.",
    },
    {
      value: false,
      title: "MAC and serial number only, unattended",
      words:
        secrets.length > 0
          ? `Any device that presents both on the installation network while the machine is armed receives ${secrets.join(" and ")}.`
          : "The files contain no secret: no password hash and no secret parameter.",
    },
  ];
  return (
    <fieldset className="mt-3">
      <legend>Proof of identity</legend>
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
