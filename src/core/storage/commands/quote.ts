const BREAKS = /[\p{Cc}\u2028\u2029]+/gu;

/**
 * A word of a shell command in single quotes: nothing in it is read as anything but itself. Ends of lines become blanks: what
 * holds the script may be read line by line, whatever is quoted in it (a section of a kickstart file ends so).
 */
export const quoted = (text: string): string =>
  `'${text.replace(BREAKS, " ").replaceAll("'", String.raw`'\''`)}'`;

/** A comment of one line, whatever stands in the text. */
export const comment = (text: string): string => `# ${text.replace(BREAKS, " ")}`;
