import Link from "next/link";
import { notFound } from "next/navigation";
import { tally } from "@/core/verify";
import { recordOf } from "@/server/runs";
import { Page } from "@/ui/frame/page";
import { TitleBlock } from "@/ui/frame/title-block";
import { RecordSheet } from "@/ui/record/record-sheet";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";
import { titled } from "../../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("run", "Record");

export default async function RecordPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const record = await orDamaged(recordOf(await desk(), id));
  if (!record) notFound();
  const counts = record.acceptance ? tally(record.acceptance.lines) : null;
  const decided = record.acceptance?.lines.filter((l) => l.settled !== null).length ?? 0;
  const open = (record.acceptance?.lines.length ?? 0) - (counts?.["as planned"] ?? 0) - decided;
  const called = record.sheet ?? record.number ?? "";
  return (
    <>
      <Page
        title={record.subject || called}
        lead={`Record of ${called}${record.revision ? ` revision ${record.revision}` : ""}, ${record.site}`}
        aside={
          <div className="no-print flex gap-2">
            <a className="btn" href={`/api/v1/runs/${id}/record.md`} download>
              Markdown
            </a>
            <a className="btn" href={`/api/v1/runs/${id}/record.json`} download>
              JSON
            </a>
            <Link className="btn" href={`/runs/${id}`}>
              Run
            </Link>
          </div>
        }
      >
        <RecordSheet record={record} />
      </Page>
      <TitleBlock
        cells={[
          { label: record.sheet ? "Sheet" : "Number", value: called, mono: true },
          { label: "Subject", value: record.subject || "–", grow: true },
          ...(record.revision ? [{ label: "Revision", value: record.revision }] : []),
          { label: "State", value: record.handedTo ? `handed over to ${record.handedTo}` : record.state },
          {
            label: "Result",
            value: counts
              ? `${counts["as planned"]} as planned${decided > 0 ? `, ${decided} accepted or corrected` : ""}${open > 0 ? `, ${open} unresolved` : ""}`
              : "not verified",
          },
        ]}
      />
    </>
  );
}
