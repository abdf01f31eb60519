import { fail, ok, type Result } from "../../result";
import { keptRules, kindsOf, type PasswordRules } from "./rules";

/** What a passphrase is made from. */
export interface PassphraseGround {
  /** Words of small letters. */
  words: readonly string[];
  rules: PasswordRules;
  account: string;
  /** The characters that may stand in it. */
  allowed: ReadonlySet<string>;
  /** Chance in bits that it must have at least. */
  leastBits: number;
  /** A number from 0 up to the bound, each as likely as the others. */
  pick: (bound: number) => number;
}

export interface Passphrase {
  text: string;
  /** Bits of chance in the choice of its parts; what is the same in every one counts nothing. */
  bits: number;
}

const SIGNS = [..."-.,_+=/:;#*!?@"];
const FEWEST_WORDS = 256;

const of = (allowed: ReadonlySet<string>, from: string): string[] => [...from].filter((c) => allowed.has(c));

/** Characters picked one by one, where too few words can be typed: one of each kind, and the rest of all. */
function pickedCharacters({ allowed, leastBits, pick, rules }: PassphraseGround): Passphrase {
  const all = [...allowed].filter((c) => c !== " ");
  const count = Math.max(rules.leastLength, Math.ceil(leastBits / Math.log2(Math.max(2, all.length))));
  return {
    text: Array.from({ length: count }, () => all[pick(all.length)]).join(""),
    bits: Math.floor(count * Math.log2(all.length)),
  };
}

/** Words with a sign between them, a number behind the second and a capital within, as far as the keyboards have them. */
function pickedWords(ground: PassphraseGround, words: readonly string[]): Passphrase {
  const { allowed, leastBits, pick, rules } = ground;
  const each = Math.log2(words.length);
  const least = Math.max(3, Math.ceil(leastBits / each));
  const sign = SIGNS.find((s) => allowed.has(s)) ?? "";
  const digits = of(allowed, "0123456789");
  const parts = Array.from({ length: least }, () => words[pick(words.length)] ?? "");
  for (const room = () => rules.leastLength - parts.join(sign).length; room() > 0;)
    parts.push(words[pick(words.length)] ?? "");
  const bits = Math.floor(parts.length * each);
  const raised = (word: string): string => {
    const capital = (word[0] ?? "").toUpperCase();
    return allowed.has(capital) ? capital + word.slice(1) : word;
  };
  // Without a sign between them the words are told apart by their capitals.
  const dressed = parts.map((word, i) =>
    (sign === "" && i > 0) || i === parts.length - 2 ? raised(word) : word,
  );
  if (digits.length > 0) dressed[1] += digits[pick(digits.length)] ?? "";
  return { text: dressed.join(sign), bits };
}

const ROUNDS = 400;

/**
 * A passphrase that keeps the rules of a family and has only characters that may stand in it; a problem where no text of
 * those characters keeps the rules.
 */
export function passphrase(ground: PassphraseGround): Result<Passphrase> {
  const { rules, allowed, account } = ground;
  const kinds = kindsOf([...allowed].filter((c) => c !== " ").join(""), { edgesCount: true });
  if (kinds.length < rules.classes)
    return fail({
      message: `these keyboard layouts share only ${allowed.size} characters, of ${kinds.length} classes (${kinds.join(", ") || "none"}), and the rule requires ${rules.classes}: choose fewer layouts`,
    });
  const words = ground.words.filter((word) => [...word].every((c) => allowed.has(c)));
  const make = () => (words.length < FEWEST_WORDS ? pickedCharacters(ground) : pickedWords(ground, words));
  for (let round = 0; round < ROUNDS; round += 1) {
    const made = make();
    if (keptRules(made.text, rules, account).every(({ kept }) => kept)) return ok(made);
  }
  return fail({ message: "no passphrase of these characters meets the rules: choose fewer layouts" });
}
