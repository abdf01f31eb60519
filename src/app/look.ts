"use server";

import { cookies } from "next/headers";
import { redirect } from "next/navigation";
import { closeDemo } from "@/server/demo";

const COOKIE = "derrick_look";

/** Whether this browser looks at the demo's data instead of its own. */
export async function isLooking(): Promise<boolean> {
  return (await cookies()).get(COOKIE)?.value === "demo";
}

export async function lookAtDemo(): Promise<void> {
  // Until the browser is closed: nobody is to find the demo's data there the next day.
  (await cookies()).set(COOKIE, "demo", { path: "/", sameSite: "lax" });
  redirect("/");
}

export async function leaveDemo(): Promise<void> {
  (await cookies()).delete(COOKIE);
  await closeDemo();
  redirect("/");
}
