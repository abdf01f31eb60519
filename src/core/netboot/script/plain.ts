/** Words for a console: nothing in them is a command, a setting or the end of a line to the program that prints them. */
export const consoleWords = (text: string): string =>
  text
    .normalize("NFKD")
    .replace(/[^\x20-\x7e]/g, "")
    .replaceAll(";", ",")
    .replace(/[$`"'\\;|&{}<>#]/g, " ")
    .replace(/ {2,}/g, " ")
    .trim()
    .slice(0, 160);
