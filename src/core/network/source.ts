const LONGEST = 300;

/** Why a text is no address of packages or of a proxy, or null. One that holds a password is refused: it would stand in every file and log. */
export function sourceProblem(text: string): string | null {
  if (text === "") return null;
  if (text.length > LONGEST) return `longer than ${LONGEST} characters`;
  if (!/^https?:\/\/[\w.~:/?#@!&()*+,;=%[\]-]+$/i.test(text))
    return "it must begin with http:// or https://, without spaces or quotes";
  let url: URL;
  try {
    url = new URL(text);
  } catch {
    return "it is not an address";
  }
  return url.username !== "" || url.password !== ""
    ? "it contains a user name or password, which would be readable in files, copies and logs"
    : null;
}
