import { open, stat } from "node:fs/promises";
import type { Answer } from "@/contract";
import { driveLater, fileInImage, type TreeEntry } from "@/core/image";
import { no, yes } from "../answer";
import { lookUp } from "../image-folder";

/** Bytes of a file of the folder that are served: all of it, or a file that lies inside it. */
export interface Served {
  path: string;
  bytes: number;
  spans: TreeEntry["spans"];
}

interface Known {
  stamp: string;
  found: TreeEntry | null;
}

/** Where files lie inside images that were read already; a file that was changed since has another stamp. */
const known = new Map<string, Known>();
const MOST_KNOWN = 2000;

/** The image as it was when a machine was armed; another size means that it is another file. */
async function imageAt(
  fileName: string,
  sizeBytes: number,
): Promise<Answer<{ path: string; stamp: string }>> {
  const file = await lookUp(fileName);
  if (!file.ok) return file;
  if (file.value.sizeBytes !== sizeBytes)
    return no(`${fileName} in the image folder has another size than when the machine was armed.`);
  const { mtimeMs, ino } = await stat(file.value.path);
  return yes({ path: file.value.path, stamp: `${ino} ${mtimeMs} ${sizeBytes}` });
}

export async function wholeImage(fileName: string, sizeBytes: number): Promise<Answer<Served>> {
  const image = await imageAt(fileName, sizeBytes);
  return image.ok
    ? yes({ path: image.value.path, bytes: sizeBytes, spans: [{ offset: 0, length: sizeBytes }] })
    : image;
}

/** A file inside an image of the folder: where its bytes lie. Nothing is unpacked. */
export async function fileInside(
  fileName: string,
  sizeBytes: number,
  inside: string,
): Promise<Answer<Served>> {
  const image = await imageAt(fileName, sizeBytes);
  if (!image.ok) return image;
  const { path, stamp } = image.value;
  const key = `${path}\0${inside}`;
  let entry = known.get(key);
  if (entry?.stamp !== stamp) {
    const file = await open(path, "r");
    try {
      const { value } = await driveLater(
        fileInImage(sizeBytes, inside),
        sizeBytes,
        async ({ offset, length }) => {
          const buffer = new Uint8Array(length);
          const { bytesRead } = await file.read(buffer, 0, length, offset);
          return buffer.subarray(0, bytesRead);
        },
      );
      entry = { stamp, found: value };
    } finally {
      await file.close();
    }
    if (known.size >= MOST_KNOWN) known.clear();
    known.set(key, entry);
  }
  const { found } = entry;
  return found
    ? yes({ path, bytes: found.bytes, spans: found.spans })
    : no(`${fileName} has no file ${inside.slice(0, 200)}.`);
}
