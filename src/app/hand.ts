"use server";

import { revalidatePath } from "next/cache";
import { cookies } from "next/headers";

const COOKIE = "derrick_hand";
const YEAR = 31_536_000;

/** The name under this browser's changes. Without accounts it is what the person says it is. */
export async function currentHand(): Promise<string> {
  return (await cookies()).get(COOKIE)?.value || "operator";
}

export async function setHand(name: string): Promise<void> {
  const clean = name
    .replace(/\p{Cc}/gu, "")
    .trim()
    .slice(0, 60);
  (await cookies()).set(COOKIE, clean || "operator", { path: "/", maxAge: YEAR, sameSite: "lax" });
  revalidatePath("/", "layout");
}
