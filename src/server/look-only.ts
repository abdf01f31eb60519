/** Somebody looks at the demo's data: nothing there is written, and nothing of one's own is touched. */
export class LookOnlyError extends Error {
  constructor() {
    super("This is the read-only demo: nothing can be changed. Go back to your own data to work.");
  }
}
