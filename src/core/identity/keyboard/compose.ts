/**
 * What a dead key and the key after it make: the one character to which Unicode's normal form C joins letter and mark, a
 * sign of its own after a space, superscripts and subscripts of digits. The rules are those of the usual compose table for
 * UTF-8; its few pairs without a joined character are left out.
 */
const MARKS: Record<string, { mark: string; alone: string }> = {
  dead_stroke: { mark: "\u0338", alone: "/" },
  dead_greek: { mark: "µ", alone: "µ" },
  dead_currency: { mark: "¤", alone: "¤" },
  dead_abovedot: { mark: "\u0307", alone: "˙" },
  dead_abovering: { mark: "\u030a", alone: "°" },
  dead_acute: { mark: "\u0301", alone: "'" },
  dead_belowdot: { mark: "\u0323", alone: "\u0323" },
  dead_belowmacron: { mark: "\u0331", alone: "\u0331" },
  dead_breve: { mark: "\u0306", alone: "˘" },
  dead_caron: { mark: "\u030c", alone: "ˇ" },
  dead_cedilla: { mark: "\u0327", alone: "¸" },
  dead_circumflex: { mark: "\u0302", alone: "^" },
  dead_diaeresis: { mark: "\u0308", alone: '"' },
  dead_doubleacute: { mark: "\u030b", alone: "˝" },
  dead_grave: { mark: "\u0300", alone: "`" },
  dead_hook: { mark: "\u0309", alone: "\u0309" },
  dead_horn: { mark: "\u031b", alone: "\u031b" },
  dead_macron: { mark: "\u0304", alone: "¯" },
  dead_ogonek: { mark: "\u0328", alone: "˛" },
  dead_tilde: { mark: "\u0303", alone: "~" },
};

/** The same dead key twice; where it is not here, it gives what it gives before a space. */
const TWICE: Record<string, string> = { dead_acute: "´", dead_diaeresis: "¨" };

const pairs = (from: string, to: string): Record<string, string> =>
  Object.fromEntries([...from].map((character, i) => [character, [...to][i]!]));

const SPECIAL: Record<string, Record<string, string>> = {
  dead_circumflex: { ".": "·", ...pairs("0123456789+-=()", "⁰¹²³⁴⁵⁶⁷⁸⁹⁺⁻⁼⁽⁾") },
  dead_caron: pairs("0123456789+-=()Vv", "₀₁₂₃₄₅₆₇₈₉₊₋₌₍₎Ǚǚ"),
  dead_abovedot: pairs("ijLl", "ıȷĿŀ"),
  dead_tilde: pairs("=<>", "≃≲≳"),
  dead_acute: pairs("Vv", "Ǘǘ"),
  dead_grave: pairs("Vv", "Ǜǜ"),
  dead_macron: pairs("Vv", "Ǖǖ"),
  dead_stroke: pairs(
    "OoDdHhLlTtbIZzGgBi2=AaCcEe>≥Jjɩȷ<≤ÓóPpRrUuYy",
    "ØøĐđĦħŁłŦŧƀƗƵƶǤǥɃɨƻ≠ȺⱥȻȼɆɇ≯≱Ɉɉᵼɟ≮≰ǾǿⱣᵽɌɍɄʉɎɏ",
  ),
  dead_greek: pairs(
    "AaBbDdEeFfGgHhIiJjKkLlMmNnOoPpQqRrSsTtUuWwXxYyZz",
    "ΑαΒβΔδΕεΦφΓγΗηΙιΘθΚκΛλΜμΝνΟοΠπΧχΡρΣσΤτΥυΩωΞξΨψΖζ",
  ),
  dead_currency: pairs(
    "AaBbÇCçcDdEeFfGgHhIiKkLlMmNnOoPprRSsTtÞþUuWwYy",
    "₳؋₱฿₵₡₵¢₯₫₠€₣ƒ₲₲₴₴៛﷼₭₭₤£ℳ₥₦₦૱௹₧₰₢₨$₪₮৳৲৲圓元₩₩円¥",
  ),
  dead_cedilla: { "¢": "₵" },
  dead_belowdot: pairs("+-=", "⨥⨪⩦"),
  dead_hook: pairs("BbCcDdFfGghKkMmNnPpqrsTtVvWwZz", "ƁɓƇƈƊɗƑƒƓɠɦƘƙⱮɱƝɲƤƥʠɼʂƬƭƲʋⱲⱳȤȥ"),
};

/** Which dead key may stand before which other: pairs whose marks a letter can carry together. */
const TOGETHER: Record<string, string> = {
  dead_acute: "tilde diaeresis circumflex macron horn abovering cedilla breve",
  dead_grave: "tilde circumflex diaeresis macron horn breve",
  dead_tilde: "circumflex horn breve diaeresis",
  dead_hook: "circumflex horn breve",
  dead_circumflex: "belowdot acute grave hook",
  dead_macron: "diaeresis abovedot belowdot ogonek tilde",
  dead_belowdot: "horn",
  dead_horn: "belowdot",
  dead_diaeresis: "acute tilde macron",
  dead_caron: "diaeresis",
  dead_breve: "cedilla belowdot",
  dead_abovedot: "acute caron belowdot",
};

/**
 * The one character that a letter and marks join to; the marks may stand before or after those that the letter has. Null
 * where the joined form is more than one character: nothing is typed then.
 */
function joined(base: string, marks: string): string | null {
  const [letter = "", ...own] = base.normalize("NFD");
  return (
    [letter + own.join("") + marks, letter + marks + own.join("")]
      .map((text) => text.normalize("NFC"))
      .find((text) => [...text].length === 1) ?? null
  );
}

function composeOne(dead: string, character: string): string | null {
  const sign = MARKS[dead];
  if (!sign) return null;
  if (character === " ") return sign.alone;
  if (character === "\u00a0") return sign.mark;
  return SPECIAL[dead]?.[character] ?? joined(character, sign.mark);
}

/** The character that dead keys, in the order of their presses, make with the one after them; null when none. */
export function compose(dead: readonly string[], character: string): string | null {
  const [first, second] = dead;
  if (first === undefined) return character;
  if (second === undefined) return composeOne(first, character);
  const [outer, inner] = [MARKS[first]!.mark, MARKS[second]!.mark];
  return joined(character, inner + outer) ?? joined(character, outer + inner);
}

/** What a second dead key does: makes a sign, waits for a letter together with the first, or gives both up. */
export function afterDead(first: string, second: string): { sign: string } | "waits" | "given up" {
  if (first === second && MARKS[first]) return { sign: TWICE[first] ?? MARKS[first].alone };
  return TOGETHER[first]?.split(" ").includes(second.replace("dead_", "")) ? "waits" : "given up";
}
