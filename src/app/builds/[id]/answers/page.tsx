import Link from "next/link";
import { notFound } from "next/navigation";
import { answersBeside, besideChoices } from "@/server/answers-beside";
import { buildHistory, buildView } from "@/server/builds";
import { answersShown } from "@/server/scripts";
import { AnswerFileText, ImageSeed } from "@/ui/build/answer-file";
import { AnswersBeside } from "@/ui/build/answers-beside";
import { originWords } from "@/ui/build/origins";
import { TakeAnswers } from "@/ui/build/take-answers";
import { Page } from "@/ui/frame/page";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";
import { save } from "../../actions";
import { titled } from "../../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("build", "Answer file");

interface Given {
  params: Promise<{ id: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

export default async function AnswersPage({ params, searchParams }: Given) {
  const { id } = await params;
  const { beside } = await searchParams;
  const chosen = typeof beside === "string" ? beside : "";
  const view = await orDamaged(answersShown(await desk(), id));
  const sheet = view && (await buildView(await desk(), id));
  if (!view || !sheet) notFound();
  const origin = originWords(sheet, await buildHistory(await desk(), id));
  return (
    <Page
      title="Answer file"
      lead={`${view.number}${view.subject ? `, ${view.subject}` : ""}. Each line names the field of the build sheet that it comes from and the source of its value.`}
      aside={
        <Link className="btn" href={`/builds/${id}#zone-F`}>
          Back to the build sheet
        </Link>
      }
    >
      {view.stops.length > 0 && (
        <p role="alert" className="mb-3 border-l-4 py-1 pl-3 font-semibold border-error">
          Do not use it yet: {view.stops.length} open {view.stops.length === 1 ? "blocker" : "blockers"} on
          the build sheet ({view.stops.join(", ")}).
        </p>
      )}
      {view.isDraft && (
        <p role="note" className="mb-4 border-l-4 pl-3 border-warning">
          The current state of the build sheet is not issued and can still change. Issue it before you give
          this file to a machine.
        </p>
      )}
      <AnswerFileText build={id} origin={origin} answer={view.answer} />
      <ImageSeed build={id} origin={origin} seed={view.seed} />
      <AnswersBeside
        choices={await besideChoices(await desk(), id)}
        chosen={chosen}
        beside={chosen === "" ? null : await answersBeside(await desk(), id, chosen)}
      />
      <TakeAnswers build={id} version={sheet.build.version} sheet={sheet.build.sheet} save={save} />
    </Page>
  );
}
