import Link from "next/link";
import { notFound } from "next/navigation";
import { fieldWords, partWords, type Edit } from "@/core/sheet";
import { setName, type PlannedSet } from "@/core/storage";
import { buildHistory, buildView, machineChoices } from "@/server/builds";
import { TakeBack } from "@/ui/build/take-back";
import { Page } from "@/ui/frame/page";
import { takeBack } from "../../actions";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";
import { Moment } from "@/ui/frame/person";
import { titled } from "../../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("build", "History");

export default async function History({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const [view, history, machines] = await Promise.all([
    orDamaged(buildView(await desk(), id)),
    buildHistory(await desk(), id),
    machineChoices(await desk()),
  ]);
  if (!view) notFound();
  const names: Names = {
    ...{ "machine.id": machines, "image.id": view.choices.images },
    networks: view.context.site?.segments ?? [],
  };
  const timeZone = view.context.site?.timeZone ?? "UTC";
  return (
    <Page
      title={`History of ${view.build.number}`}
      lead={view.build.sheet.subject}
      aside={
        <Link className="btn" href={`/builds/${id}`}>
          Back to the build sheet
        </Link>
      }
    >
      {history.length === 0 && <p className="quiet">No changes since the build sheet was created.</p>}
      <ol>
        {history.map((h) => (
          <li
            key={h.version}
            className={`grid gap-x-4 border-b py-2 sm:grid-cols-[13rem_minmax(0,1fr)_auto] ${h.letter ? "border-t-2 border-current" : "border-base-300"}`}
          >
            <div>
              <span className="value">
                <Moment at={h.at} timeZone={timeZone} />
              </span>
              <div className="quiet">{h.by}</div>
            </div>
            <div>
              {h.letter && <strong className="text-[1.07rem]">Revision {h.letter} issued</strong>}
              {h.edits.map((e) => (
                <Change key={e.path} edit={e} words={(value) => words(names, e.path, value)} />
              ))}
            </div>
            {h.edits.length > 0 && <TakeBack action={takeBack.bind(null, id, h.version)} />}
          </li>
        ))}
      </ol>
    </Page>
  );
}

/** What the ids of a field stand for, by path; networks stand in many. */
type Names = Partial<Record<string, readonly { id: string; name: string }[]>>;

/** Ids are shown as the names of what they stand for; a waiver as its finding and reason. */
function words(names: Names, path: string, value: unknown): string {
  // What was typed to name a drive is kept, and not shown where it may be asked for again.
  if (path === "storage.erase" && Array.isArray(value))
    return (value as { by: string; holds: string | null }[])
      .map((c) => `${c.by} confirmed erasing: ${c.holds ?? "contents not recorded"}`)
      .join("; ");
  if (path === "storage.sets" && Array.isArray(value))
    return (value as PlannedSet[])
      .map((s) =>
        [
          `${setName(s)}, ${s.type} of ${s.members.length}`,
          ...(["spares", "special", "logs", "caches"] as const)
            .filter((list) => (s[list] ?? []).length > 0)
            .map((list) => `${s[list].length} ${list}`),
          ...(s.volumes ?? []).map((v) => v.name),
        ].join(", "),
      )
      .join("; ");
  if (path === "waivers")
    return (value as { key: string; reason: string }[]).map((w) => `${w.key}: ${w.reason}`).join("; ");
  return partWords(
    path,
    value,
    (id) => [...(names[path] ?? []), ...(names.networks ?? [])].find((n) => n.id === id)?.name,
  );
}

function Change({ edit, words: inWords }: { edit: Edit; words: (value: unknown) => string }) {
  const { zone, name } = fieldWords(edit.path);
  const before = inWords(edit.before);
  return (
    <div className="grid grid-cols-[1.4rem_minmax(7rem,13rem)_minmax(0,1fr)] gap-x-2 [overflow-wrap:anywhere]">
      <span className="value font-semibold">{zone}</span>
      <span className="quiet">{name}</span>
      <span className="value">
        {before !== "–" && before !== "" && <s className="quiet mr-2">{before}</s>}
        {inWords(edit.after)}
        {edit.from && <span className="quiet ml-2 font-sans">{edit.from}</span>}
      </span>
    </div>
  );
}
