/** Somebody looks at the demo's data: nothing there is written, and nothing of one's own is touched. */
export class LookOnlyError extends Error {
  constructor() {
    super(
      "These are the made-up data of the demo, to be looked at: nothing can be changed here. Go back to your own to work.",
    );
  }
}
