"use server";

import { revalidatePath } from "next/cache";
import { cookies } from "next/headers";
import { UNITS } from "@/ui/frame/units";
import { UNITS_COOKIE } from "./person";

const COOKIE = "derrick_hand";
const YEAR = 31_536_000;

/** As the log and the sheets take it: nothing that is not seen, at most sixty characters, never empty; what is no text is none. */
const clean = (name: unknown): string =>
  (typeof name === "string" ? name : "")
    .replace(/[\p{Cc}\p{Cf}\p{Cs}\p{Zl}\p{Zp}]/gu, "")
    .trim()
    .slice(0, 60) || "operator";

/** The name under this browser's changes. Without accounts it is what the person says it is. */
export async function currentHand(): Promise<string> {
  return clean((await cookies()).get(COOKIE)?.value);
}

export async function setHand(name: string, units: string): Promise<void> {
  const kept = { path: "/", maxAge: YEAR, sameSite: "lax" } as const;
  (await cookies()).set(COOKIE, clean(name), kept);
  (await cookies()).set(UNITS_COOKIE, UNITS.find((u) => u === units) ?? "both", kept);
  revalidatePath("/", "layout");
}
