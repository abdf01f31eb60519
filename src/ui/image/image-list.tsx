"use client";

import Link from "next/link";
import { term } from "@/core/text";
import { formatDay } from "@/core/units";
import { DataList, type DataColumn } from "../frame/data-list";
import { Day, Size } from "../frame/person";

/** One image of the shelf. */
export interface ImageLine {
  id: string;
  name: string;
  purpose: string;
  fileName: string;
  sizeBytes: number;
  startsIn: string;
  checksum: string;
  /** From the image itself, or else from its profile. */
  supportEnds: { day: string; from: string } | null;
  builds: string;
  /** What is wrong with it. */
  marks: string;
}

const COLOUR: Record<string, string> = { matches: "text-success", differs: "text-error" };
const dash = <span className="quiet">–</span>;

const COLUMNS: readonly DataColumn<ImageLine>[] = [
  {
    ...{ id: "name", title: "Image", width: "minmax(14rem,2fr)", by: (i) => i.name },
    cell: (i) => (
      <div className="min-w-0 leading-tight">
        <Link className="link font-medium" href={`/images/${i.id}`}>
          {i.name}
        </Link>
        {i.purpose !== "installer" && <span className="quiet"> {i.purpose}</span>}
        <div className="value quiet text-[0.86rem]">{i.fileName || " "}</div>
      </div>
    ),
  },
  {
    ...{
      id: "size",
      title: "Size",
      width: "minmax(12.5rem,0.9fr)",
      by: (i) => i.sizeBytes,
      mono: true,
      isWide: true,
    },
    cell: (i) => <Size bytes={i.sizeBytes} />,
  },
  {
    ...{ id: "starts", title: "Boot modes", width: "7rem", by: (i) => i.startsIn, isWide: true },
    cell: (i) => i.startsIn || dash,
  },
  {
    ...{ id: "checksum", title: "Checksum", width: "8rem", by: (i) => i.checksum },
    cell: (i) => <span className={COLOUR[i.checksum]}>{term(i.checksum)}</span>,
  },
  {
    ...{
      id: "ends",
      title: "Support ends",
      width: "8rem",
      by: (i) => i.supportEnds?.day,
      isWide: true,
      mono: true,
    },
    cell: (i) =>
      i.supportEnds ? (
        <>
          <Day at={i.supportEnds.day} />
          <div className="quiet font-sans text-[0.86rem]">from the {i.supportEnds.from}</div>
        </>
      ) : (
        dash
      ),
  },
  {
    ...{
      id: "marks",
      title: "Issues",
      width: "minmax(8rem,1fr)",
      by: (i) => i.marks || undefined,
    },
    cell: (i) => (i.marks ? <span className="text-warning">{i.marks}</span> : dash),
  },
  {
    ...{
      id: "builds",
      title: "Used by",
      width: "minmax(6rem,0.8fr)",
      by: (i) => i.builds || undefined,
      isWide: true,
      mono: true,
    },
    cell: (i) => i.builds || dash,
  },
];

/** Every image with what is wrong with it. */
export const ImageList = ({ images }: { images: ImageLine[] }) => (
  <DataList
    label="Image library"
    what="images"
    rows={images}
    columns={COLUMNS}
    remembered="derrick_image_columns"
    sortedBy={{ id: "name", desc: false }}
    wordsOf={({ supportEnds, ...i }) =>
      [...Object.values(i), supportEnds ? formatDay(supportEnds.day) : ""].join(" ")
    }
    hrefOf={(i) => `/images/${i.id}`}
    rowHeight={44}
    minWidth="62rem"
    narrowWidth="33rem"
    placeholder="name, file, sheet…"
  />
);
