import { asc } from "drizzle-orm";
import { imageDocument, type Image } from "@/core/image";
import type { Stamp } from "./changes";
import type { Db, Tx } from "./client";
import { reading, writing, type Kept } from "./documents";
import { images } from "./schema";

export interface ImageRow {
  id: string;
  version: number;
  updatedAt: string;
  image: Image;
}

export const KEPT: Kept<typeof images, typeof imageDocument.schema, ImageRow> = {
  ...{ definition: imageDocument, table: images, key: "id", field: "document", called: "name" },
  columns: (document) => ({ name: document.name, profile: document.profile, document }),
  row: ({ id, version, updatedAt }, image) => ({ id, version, updatedAt, image }),
};
const rows = { ...reading(KEPT), ...writing(KEPT) };
export const { one, update } = rows;

export const all = (db: Db | Tx): Promise<ImageRow[]> => rows.some(db, undefined, [asc(images.name)]);

export const insert = (tx: Tx, id: string, image: Image, stamp: Stamp): Promise<void> =>
  rows.insert(tx, image, stamp, { id });
