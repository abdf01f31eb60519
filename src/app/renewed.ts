import { revalidatePath } from "next/cache";

/** The answer of a save; with it the browser gets the page anew, and forgets what it keeps of it for its back button. */
export async function renewed<A extends { ok: boolean }>(path: string, saving: Promise<A>): Promise<A> {
  const answer = await saving;
  if (answer.ok) revalidatePath(path);
  return answer;
}
