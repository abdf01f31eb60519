/**
 * One value of an option. A line is split as a POSIX shell splits words, with no expansion: inside double quotes only a
 * quote and a backslash have a meaning. What could end a line never comes here: the intent has refused it.
 */
export const word = (value: string): string =>
  /^[A-Za-z0-9_./:@+,=-]+$/.test(value) ? value : `"${value.replace(/["\\]/g, String.raw`\$&`)}"`;
