"use server";

import { revalidatePath } from "next/cache";
import { cookies } from "next/headers";

const COOKIE = "derrick_hand";
const YEAR = 31_536_000;

/** As the log and the sheets take it: no control characters, at most sixty characters, never empty. */
const clean = (name: string | undefined): string =>
  (name ?? "")
    .replace(/\p{Cc}/gu, "")
    .trim()
    .slice(0, 60) || "operator";

/** The name under this browser's changes. Without accounts it is what the person says it is. */
export async function currentHand(): Promise<string> {
  return clean((await cookies()).get(COOKIE)?.value);
}

export async function setHand(name: string): Promise<void> {
  (await cookies()).set(COOKIE, clean(String(name)), { path: "/", maxAge: YEAR, sameSite: "lax" });
  revalidatePath("/", "layout");
}
