import type { Answer } from "@/contract";
import { machineOf } from "@/core/netboot";
import { bootRows, machineRows, siteRows } from "@/db";
import { no, yes } from "../answer";
import type { Desk } from "../desk";

/** Makes a machine of one that asked over the network and that nobody knows, from what it told of itself. */
export async function adoptStranger(
  desk: Desk,
  mac: string,
  siteId: string,
  name: string,
): Promise<Answer<string>> {
  if (name.trim() === "") return no("Enter the machine name, as on its front.");
  if (!(await siteRows.one(desk.db, siteId))) return no("Choose the site of the machine.");
  const id = desk.newId("m");
  // Looked at where it is written: two people may see one machine ask.
  return desk.write(async (tx) => {
    const last = await bootRows.lastStranger(tx, mac);
    if (last?.event.kind !== "asked") return no("No machine with this MAC has sent a request.");
    const known = await machineRows.byMac(tx, mac);
    if (known) return no(`Already known: ${known.name} has this MAC.`);
    if (await machineRows.nameIsTaken(tx, siteId, name.trim()))
      return no(`This site already has a machine with the name ${name.trim()}.`);
    const document = machineOf(last.event.caller, last.at);
    await machineRows.insert(tx, id, siteId, name.trim(), document, desk.stamp());
    return yes(id);
  });
}
