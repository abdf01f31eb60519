import { fail, ok, type Result } from "../../result";
import { readCloudConfig } from "./cloud";
import { untaken, type AnswersRead } from "./draft";
import { readKickstart } from "./kickstart";
import { readPreseed } from "./preseed";

const MOST_CHARACTERS = 2_000_000;

/** Words that begin lines of each format; the one with more of them is the format. */
const SIGNS = {
  kickstart:
    /^(?:lang|keyboard|timezone|rootpw|network|clearpart|part|bootloader|ignoredisk|%packages|%pre|%post)\b/gm,
  preseed:
    /^\s*(?:d-i|tasksel|popularity-contest|[a-z0-9-]+)\s+[a-z0-9-]+\/[a-z0-9_/-]+\s+(?:string|boolean|select|multiselect|note|password|text)\b/gm,
} as const;

/**
 * Reads an answer file that somebody has: kickstart, preseed, the user data of an installer, cloud-config. It is told apart
 * by its first line or by its words; one that is none of them is a problem.
 */
export function readAnswers(given: string): Result<AnswersRead> {
  const whole = given.replace(/^\ufeff/, "").replace(/\r\n?/g, "\n");
  if (whole.length > MOST_CHARACTERS)
    return fail({ message: "The text is too long for an answer file, so it was not read." });
  if (whole.includes("\0"))
    return fail({
      message: "The text contains NUL characters: it is not text, or not UTF-8.",
    });
  const lines = whole.split("\n");
  if (/^#cloud-config\b/.test(whole) || /^autoinstall:/m.test(whole))
    return ok(cut(readCloudConfig(whole), whole, lines));
  const count = (sign: RegExp): number => whole.match(sign)?.length ?? 0;
  const [kickstart, preseed] = [count(SIGNS.kickstart), count(SIGNS.preseed)];
  if (kickstart === 0 && preseed === 0)
    return fail({
      message:
        "Not a supported answer file. Supported: kickstart, preseed, and cloud-config, which begins with #cloud-config.",
    });
  return ok(cut(kickstart >= preseed ? readKickstart(lines) : readPreseed(lines), whole, lines));
}

/** A last line without its end is told: the file may be cut off. */
function cut(read: AnswersRead, whole: string, lines: readonly string[]): AnswersRead {
  const told = whole.endsWith("\n") || whole === "";
  const odd = /\ufffd/.test(whole);
  return {
    ...read,
    untaken: [
      ...read.untaken,
      ...(told
        ? []
        : [
            untaken(
              lines.length,
              lines.at(-1) ?? "",
              "the last line has no line end: the file may be truncated",
            ),
          ]),
      ...(odd ? [untaken(1, "", "some characters were lost: the file is not UTF-8")] : []),
    ].sort((a, b) => a.line - b.line),
  };
}
