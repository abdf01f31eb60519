/** Facts on which tools ought to agree. What moves or is worded freely (names, contents, addresses) is not among them. */
const DISPUTABLE = new RegExp(
  [
    "^chassis\\.(maker|model|serial|uuid)$",
    "^firmware\\.(mode|version)$",
    "^processors\\.(architecture|sockets|cores|threads)$",
    "^memory\\.installedBytes$",
    "^controller\\.(present|address)$",
    "^drives\\..+\\.(serial|model|sizeBytes|media|physicalSectorBytes|bay)$",
    "^ports\\..+\\.(kind|speedMegabits|pci)$",
  ].join("|"),
);

export const isDisputable = (path: string): boolean => DISPUTABLE.test(path);

/** A model or maker without what tools add and leave out. */
export const plainModel = (value: string): string => value.toLowerCase().replace(/[\s_.,()-]+/g, "");

/** Whether two tools say the same: tools shorten names and pad them, but a number is a number. */
export function agree(path: string, a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a === "string" && typeof b === "string") {
    if (path.endsWith(".media")) return a === "unknown" || b === "unknown";
    const [x, y] = [plainModel(a), plainModel(b)];
    if (x === "" || y === "") return true;
    return path.endsWith(".serial") || path.endsWith(".bay") ? x === y : x.includes(y) || y.includes(x);
  }
  return false;
}

/** Of two wordings of one thing, the one that says more. */
export function better(old: unknown, given: unknown): unknown {
  if (given === "unknown") return old;
  return typeof old === "string" && typeof given === "string" && old.length > given.length ? old : given;
}
