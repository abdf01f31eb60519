/** One thing that was found, and the page that shows it. */
export interface Found {
  kind:
    | "machine"
    | "image"
    | "build"
    | "site"
    | "address"
    | "segment"
    | "thing"
    | "date"
    | "profile"
    | "zone"
    | "finding"
    | "step";
  title: string;
  detail: string;
  href: string;
}

/** What carries the words; where nothing does, what carries the words that were most likely meant. */
export interface FindAnswer {
  found: Found[];
  /** The words that were looked for instead; null where those that were typed stand somewhere. */
  meant: string | null;
  /** What an address is that was typed, a sentence each; empty where none was. */
  explained: string[];
}
