/** A word of a shell command in single quotes: nothing in it is read as anything but itself. */
export const quoted = (text: string): string => `'${text.replaceAll("'", String.raw`'\''`)}'`;

/** A comment of one line, whatever stands in the text. */
export const comment = (text: string): string => `# ${text.replace(/[\p{Cc}\u2028\u2029]+/gu, " ")}`;
