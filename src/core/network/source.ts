const LONGEST = 300;

/** Why a text is no address of packages or of a proxy, or null. One that holds a password is refused: it would stand in every file and log. */
export function sourceProblem(text: string): string | null {
  if (text === "") return null;
  if (text.length > LONGEST) return `longer than ${LONGEST} characters`;
  if (!/^https?:\/\/[\w.~:/?#@!&()*+,;=%[\]-]+$/i.test(text))
    return "it begins with http:// or https://, and holds no blanks or quotes";
  let url: URL;
  try {
    url = new URL(text);
  } catch {
    return "it is no address";
  }
  return url.username !== "" || url.password !== ""
    ? "it holds a name or a password, which would stand in the file, in its copies and in every log"
    : null;
}
