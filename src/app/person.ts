import { cookies, headers } from "next/headers";
import type { Person } from "@/ui/frame/person";
import { UNITS } from "@/ui/frame/units";

export const UNITS_COOKIE = "derrick_units";

/** The first language that the browser asks for; English as in Britain where it asks for none that exists. */
function localeOf(accepted: string | null): string {
  const [first = ""] = (accepted ?? "").split(/[,;]/);
  try {
    return Intl.getCanonicalLocales(first.trim())[0] ?? "en-GB";
  } catch {
    return "en-GB";
  }
}

/** How the person of this browser reads dates and sizes. */
export async function currentPerson(): Promise<Person> {
  const units = (await cookies()).get(UNITS_COOKIE)?.value;
  return {
    locale: localeOf((await headers()).get("accept-language")),
    units: UNITS.find((u) => u === units) ?? "both",
  };
}
