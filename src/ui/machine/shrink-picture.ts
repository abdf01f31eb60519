/** The longer side of a kept picture in pixels: a label of a drive can still be read on it. */
const LONGEST = 2000;
const QUALITY = 0.86;
/** A small drawing stays as it is in every pixel; a photograph that large is better off as JPEG. */
const MOST_PNG_BYTES = 1_000_000;

const blobOf = (canvas: HTMLCanvasElement, type: string): Promise<Blob | null> =>
  new Promise((resolve) => canvas.toBlob(resolve, type, QUALITY));

/**
 * A picture as it is kept: scaled down, turned the right way up, and without the camera's notes on where and when it was
 * taken. Null when the browser cannot read it.
 */
export async function shrinkPicture(file: Blob): Promise<Blob | null> {
  const read = await createImageBitmap(file, { imageOrientation: "from-image" }).catch(() => null);
  if (!read) return null;
  const scale = Math.min(1, LONGEST / Math.max(read.width, read.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.max(1, Math.round(read.width * scale));
  canvas.height = Math.max(1, Math.round(read.height * scale));
  const pen = canvas.getContext("2d");
  if (!pen) return null;
  // JPEG has no transparency; what shows through is paper.
  pen.fillStyle = "white";
  pen.fillRect(0, 0, canvas.width, canvas.height);
  pen.drawImage(read, 0, 0, canvas.width, canvas.height);
  read.close();
  const exact = file.type === "image/png" ? await blobOf(canvas, "image/png") : null;
  return exact && exact.size <= MOST_PNG_BYTES ? exact : blobOf(canvas, "image/jpeg");
}
