/** The number of the last line of a text, where no end of a line stands behind it; null where one does. */
export function openLineOf(text: string): number | null {
  const told = text.trimEnd();
  return told === "" || /[\r\n]/.test(text.slice(told.length)) ? null : told.split(/\r\n|\n|\r/).length;
}
