import type { Image } from "@/core/image";
import { ByteMap } from "./byte-map";
import { Loaders, VerdictTable } from "./verdict-table";
import { Size } from "../frame/person";

/** What was found inside the file of an image: where it starts, by what, and how its bytes lie. */
export function Inside({ image }: { image: Image }) {
  if (!image.inside) return <p className="quiet mt-3">Not inspected yet: the boot modes are as typed.</p>;
  const { found } = image.inside;
  return (
    <div className="mt-4 space-y-4">
      <p>
        <span className="text-[1.07rem] font-semibold">{found.kind}</span>
        {found.volumeId && (
          <>
            , volume <span className="value">{found.volumeId}</span>
          </>
        )}
      </p>
      {found.faults.map((f) => (
        <p key={f.message} className={`border-l-4 pl-3 ${f.grave ? "border-error" : "border-warning"}`}>
          {f.grave && <span className="font-semibold">Damaged: </span>}
          {f.message}
        </p>
      ))}
      <VerdictTable verdict={found.verdict} />
      <Loaders loaders={found.loaders} />
      <ByteMap regions={found.regions} size={found.sizeBytes} />
      <p className="quiet">
        {found.loaders.length > 0 &&
          `Loaders: ${found.loaders.map((l) => `${l.path} (${l.arch ?? "not an EFI program"}, ${l.where})`).join("; ")}. `}
        <Size bytes={found.bytesRead} /> were read. Whether a loader works cannot be determined by inspection.
      </p>
    </div>
  );
}
