/** Runs once when the server starts. Node code stays in its own file, so that nothing of it is built for other runtimes. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME === "nodejs") await (await import("./server/start")).start();
}
