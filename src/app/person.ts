import { cookies } from "next/headers";
import type { Person } from "@/ui/frame/person";
import { UNITS } from "@/ui/frame/units";

export const UNITS_COOKIE = "derrick_units";

/** How the person of this browser reads times and sizes, where the sites stand in this time zone. */
export async function currentPerson(timeZone: string): Promise<Person> {
  const units = (await cookies()).get(UNITS_COOKIE)?.value;
  return { timeZone, units: UNITS.find((u) => u === units) ?? "both" };
}
