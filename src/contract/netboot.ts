/** How many machines go at once, how long one takes (in seconds), and how many are on their way already. */
export interface Turns {
  atOnce: number;
  eachSeconds: number;
  open: number;
}

/** What came of one machine of a batch. */
export interface BatchResult {
  build: string;
  armed: boolean;
  words: string;
}
