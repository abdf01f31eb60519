import Link from "next/link";
import { fetchEstimate } from "@/core/estimate";
import type { Image } from "@/core/image";
import type { RegisterEntry } from "@/core/machine";
import type { Site } from "@/core/site";
import { formatDuration } from "@/core/units";
import { FigureValue } from "../fields/figure-value";
import { Size } from "../frame/person";

/** How long it takes until the image is at each site, and which sticks are large enough or carry it already. */
export function Reach({
  image,
  imageId,
  sites,
  sticks,
}: {
  image: Image;
  imageId: string;
  sites: readonly { id: string; site: Site }[];
  sticks: readonly { key: string; where: string; entry: RegisterEntry }[];
}) {
  return (
    <div className="grid gap-x-10 gap-y-4 lg:grid-cols-2">
      <table className="table" aria-label="Download time">
        <thead>
          <tr>
            <th>Site</th>
            <th>Download time</th>
          </tr>
        </thead>
        <tbody>
          {sites.length === 0 && (
            <tr>
              <td colSpan={2} className="quiet">
                no site recorded
              </td>
            </tr>
          )}
          {sites.map(({ id, site }) => (
            <tr key={id}>
              <th scope="row">
                <Link className="link" href={`/sites/${id}`}>
                  {site.name}
                </Link>
              </th>
              <td>
                {site.link ? (
                  <Fetched sizeBytes={image.sizeBytes} bitsPerSecond={site.link.bitsPerSecond} />
                ) : (
                  <span className="quiet">no link speed recorded for this site</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <table className="table" aria-label="Suitable USB sticks">
        <thead>
          <tr>
            <th>USB stick</th>
            <th>Size</th>
            <th>Contents now</th>
          </tr>
        </thead>
        <tbody>
          {sticks.length === 0 && (
            <tr>
              <td colSpan={3} className="quiet">
                no USB stick in the drive inventory
              </td>
            </tr>
          )}
          {sticks.map(({ key, where, entry }) => {
            const fits = entry.sizeBytes >= image.sizeBytes;
            return (
              <tr key={key}>
                <th scope="row">
                  <Link className="link" href={`/machines/drives/${encodeURIComponent(key)}`}>
                    {entry.label || entry.model || key}
                  </Link>
                  <span className="quiet block text-[0.86rem]">{where}</span>
                </th>
                <td className="value" style={fits ? undefined : { color: "var(--color-error)" }}>
                  <Size bytes={entry.sizeBytes} />
                  {!fits && " – too small"}
                </td>
                <td>
                  {entry.carries?.imageId === imageId ? (
                    <strong className="text-success">
                      this image{entry.carries.compared ? ", verified" : ", not verified"}
                    </strong>
                  ) : (
                    entry.holds || <span className="quiet">unknown</span>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

function Fetched({ sizeBytes, bitsPerSecond }: { sizeBytes: number; bitsPerSecond: number }) {
  const { duration, figure } = fetchEstimate(sizeBytes, bitsPerSecond);
  return (
    <FigureValue
      figure={figure}
      text={`${formatDuration(duration.likelySeconds)} … ${formatDuration(duration.lateSeconds)}`}
    />
  );
}
