import { buildView, issueRevision } from "@/server/builds";
import { agreeToErase, saveEdits } from "@/server/sheet-acts";
import { siteRows } from "@/db";
import { SITE } from "@/server/written";
import { ARMED } from "./boot-image";
import { desk } from "./desk";
import { write } from "./written";

const version = async (): Promise<number> => (await buildView(await desk(), ARMED.build))!.build.version;

export async function edit(values: Record<string, unknown>): Promise<void> {
  const edits = Object.entries(values).map(([path, after]) => ({ path, before: null, after }));
  const saved = await saveEdits(await desk(), ARMED.build, await version(), edits);
  if (!saved.ok) throw new Error(saved.problems.map((p) => p.message).join("; "));
}

/** Everything that arming wants of the build and its site. */
export async function makeReady(drive = ARMED.drive): Promise<void> {
  const site = (await siteRows.ifSound((await desk()).db, ARMED.site))!;
  await write(await desk(), SITE, ARMED.site, site.version, { networkBoot: "on" });
  await edit({ "image.way": "network" });
  await agreeToErase(await desk(), ARMED.build, await version(), drive, drive);
  await issueRevision(await desk(), ARMED.build, await version());
}
