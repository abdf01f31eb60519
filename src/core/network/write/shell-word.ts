/** A text as one word of a POSIX shell, whatever stands in it: inside single quotes nothing has a meaning but the quote. */
export const shellWord = (text: string): string =>
  /^[A-Za-z0-9_./:@%+=,-]+$/.test(text) ? text : `'${text.replaceAll("'", `'\\''`)}'`;
