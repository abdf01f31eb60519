import { deskOf, type Desk } from "@/server/desk";

/** A desk at the database of this test, for J. Pell unless somebody else is named, at a chosen time where one is given. */
export async function desk(actor = "J. Pell", at?: string): Promise<Desk> {
  const own = await deskOf(actor);
  return at === undefined ? own : { ...own, now: () => at, stamp: () => ({ at, by: actor }) };
}
