import { formatNumber } from "@/core/units";
import {
  guessSeconds,
  keptRules,
  LEAST_GUESSES,
  trapOf,
  typeToGet,
  type NamedLayout,
  type PasswordRole,
  type PasswordRules,
} from "@/core/identity";
import type { Strength } from "@/core/secret";
import { Ruled } from "../frame/page";
import { Signal } from "../frame/signal";

const YEAR = 365.25 * 24 * 3600;
const UNITS: readonly [seconds: number, name: string][] = [
  [YEAR, "years"],
  [24 * 3600, "days"],
  [3600, "hours"],
  [60, "minutes"],
];

/** How long tries take, as a person says it. */
function timeWords(seconds: number): string {
  const unit = UNITS.find(([size]) => seconds >= 2 * size);
  if (!unit) return seconds < 2 ? "about a second" : `${Math.round(seconds)} seconds`;
  const count = seconds / unit[0];
  return count > 10_000 ? "more than 10,000 years" : `${formatNumber(Math.round(count))} ${unit[1]}`;
}

export interface Judged {
  password: string;
  account: string;
  role: PasswordRole;
  rules: PasswordRules | null;
  strength: Strength | null;
}

/** Why a password is not to be sealed; empty when nothing speaks against it. */
export function againstSealing({ password, account, role, rules, strength }: Judged): string[] {
  if (password === "") return ["Type a password first."];
  if (/\p{Cc}/u.test(password)) return ["It contains a control character, which consoles do not accept."];
  const broken = (rules ? keptRules(password, rules, account) : []).filter(({ kept }) => !kept);
  return [
    ...broken.map(({ words }) => `It violates a rule: ${words}.`),
    ...(strength === null ? ["Its strength is not computed yet: try again."] : []),
    ...(strength && strength.guesses < LEAST_GUESSES[role] ? ["Too weak."] : []),
  ];
}

const Line = ({ good, children }: { good: boolean | null; children: React.ReactNode }) => (
  <li className="grid grid-cols-[1.4rem_1fr] items-baseline gap-x-1">
    <span>{good === false ? <Signal severity="caution" size={12} /> : good ? "✓" : ""}</span>
    <span>{children}</span>
  </li>
);

export interface Boards {
  sends: NamedLayout | undefined;
  installer: NamedLayout | undefined;
  system: NamedLayout | undefined;
}

/** What comes of a password: the rules, how long it stands, and what two keyboards make of it. */
export function PasswordVerdict({
  judged,
  boards,
  shown,
}: {
  judged: Judged;
  boards: Boards;
  shown: boolean;
}) {
  const { password, account, role, rules, strength } = judged;
  return (
    <>
      <Ruled title="Password rules of the OS family">
        <ul aria-label="Rules">
          {rules ? (
            keptRules(password, rules, account).map(({ words, kept }) => (
              <Line key={words} good={password === "" ? null : kept}>
                {words}
              </Line>
            ))
          ) : (
            <Line good={null}>No image is chosen, so its password rules are unknown.</Line>
          )}
        </ul>
      </Ruled>
      <Ruled
        title="Strength (offline cracking time)"
        note="at 10,000 guesses per second against a stolen hash"
      >
        <p aria-live="polite" aria-label="Strength">
          <StrengthWords password={password} strength={strength} role={role} />
        </p>
      </Ruled>
      <Ruled title="Keyboard layouts">
        <KeyboardVerdict password={password} boards={boards} shown={shown} />
      </Ruled>
    </>
  );
}

function StrengthWords({ password, strength, role }: Pick<Judged, "password" | "strength" | "role">) {
  if (password === "") return "No password typed.";
  if (strength === null) return "computing…";
  const least = LEAST_GUESSES[role];
  const isWeak = strength.guesses < least;
  return (
    <>
      {isWeak ? <Signal severity="caution" size={12} /> : "✓"}{" "}
      <span className={isWeak ? "font-semibold" : ""}>{timeWords(guessSeconds(strength.guesses))}</span>
      {`; required here: at least ${timeWords(guessSeconds(least))}. ${strength.why}`}
    </>
  );
}

function KeyboardVerdict({ password, boards, shown }: { password: string; boards: Boards; shown: boolean }) {
  const { sends, installer, system } = boards;
  if (!sends || !installer)
    return <p className="quiet">Choose the keyboard layouts of your console and of the installer.</p>;
  if (password === "") return <p className="quiet">No password typed.</p>;
  const trap = trapOf(password, { sends, reads: installer });
  if (trap.kind === "untypable")
    return <p className="text-error">Your console layout has no key for: {trap.missing.join(" ")}</p>;
  if (trap.same)
    return (
      <p>
        ✓ The installer stores the password as you type it.
        {system && system !== sends && (
          <LaterLogIn stored={password} sends={sends} system={system} shown={shown} />
        )}
      </p>
    );
  const { text, altPresses, deadPending } = trap.stored;
  return (
    <div role="alert">
      <p className="font-semibold">
        <Signal severity="caution" size={12} /> The installer stores a different password.
      </p>
      <dl className="grid grid-cols-[11rem_1fr] gap-x-3">
        <dt className="label pt-0.5">Stored password</dt>
        <dd className="value">{shown ? text || "(nothing)" : "shown together with the password"}</dd>
        <dt className="label pt-0.5">Lost characters</dt>
        <dd>
          {altPresses > 0
            ? `${altPresses} key presses with AltGr, which produce nothing there`
            : "no key press"}
          {deadPending && "; the last key is a dead key and waits for another one"}
        </dd>
      </dl>
      {system && <LaterLogIn stored={text} sends={sends} system={system} shown={shown} />}
    </div>
  );
}

/** What logs in at the console once the system has its own layout. */
function LaterLogIn({
  stored,
  sends,
  system,
  shown,
}: {
  stored: string;
  sends: NamedLayout;
  system: NamedLayout;
  shown: boolean;
}) {
  const again = stored === "" ? null : typeToGet(stored, { sends, reads: system });
  return (
    <span className="mt-1 block">
      {again === null ? (
        "At its console, this keyboard cannot type the stored password. Log in through the network and change it."
      ) : (
        <>
          To log in at its console, type{" "}
          <span className="value">{shown ? again : "(shown together with the password)"}</span>.
        </>
      )}
    </span>
  );
}
