import { redirect } from "next/navigation";
import { damagedIn } from "@/server/damaged";

/** What a page is about; when its document is damaged, the page of damaged documents opens there instead of an error. */
export async function orDamaged<T>(load: Promise<T>): Promise<T> {
  let damaged: ReturnType<typeof damagedIn> = null;
  try {
    return await load;
  } catch (error) {
    damaged = damagedIn(error);
    if (!damaged) throw error;
  }
  return redirect(`/damaged#${encodeURIComponent(`${damaged.kind}-${damaged.id}`)}`);
}
