import Link from "next/link";
import { notFound } from "next/navigation";
import type { Arming } from "@/core/netboot";
import { formatDuration } from "@/core/units";
import { buildView } from "@/server/builds";
import { armingOffer } from "@/server/netboot/offer";
import { armingPreview, type ArmingPreview } from "@/server/netboot/preview";
import { ParametersInForce } from "@/ui/build/parameters";
import { Day } from "@/ui/frame/person";
import { Page, Ruled } from "@/ui/frame/page";
import { ArmForm } from "@/ui/netboot/arm-form";
import { arm } from "../../netboot/actions";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";
import { titled } from "../../../titled";

export const dynamic = "force-dynamic";
export const generateMetadata = titled("build", "Arm for network boot");

export default async function ArmPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const view = await orDamaged(buildView(await desk(), id));
  if (!view) notFound();
  const offer = await armingOffer(await desk(), id);
  const preview = offer.ok ? await armingPreview(await desk(), id, offer.value) : null;
  const name = view.context.machine?.name ?? "no machine";
  return (
    <Page
      title={`Arm ${name} for one network installation`}
      lead={`${view.build.number} ${view.build.sheet.subject}`}
      aside={
        <div className="flex gap-2">
          <Link className="btn" href="/builds/netboot">
            Network installations
          </Link>
          <Link className="btn" href={`/builds/${id}`}>
            Back to the build sheet
          </Link>
        </div>
      }
    >
      {offer.ok ? (
        <>
          <Ruled title="Planned installation" note="when the machine requests its boot files">
            <ul className="space-y-0.5">
              <li>
                {offer.value.arming.image.name} is installed from revision {offer.value.arming.build.revision}{" "}
                in about {formatDuration(offer.value.arming.likelySeconds)}.
              </li>
              <li>
                Only a machine that boots from {offer.value.arming.machine.macs.join(" or ")} and reports the
                serial number of {name} is accepted, once. Neither is secret: choose below whether the machine
                must also enter a code.
              </li>
              {offer.value.uncompared && <li>{offer.value.uncompared}</li>}
              {offer.value.asks.length > 0 && (
                <li className="border-l-2 pl-2 border-error">
                  No encrypted password is stored for {offer.value.asks.join(" and ")}: the installer stops at
                  its password screen and waits for input at the machine.
                </li>
              )}
            </ul>
          </Ruled>
          <Lost erases={offer.value.arming.erases} />
          <Left left={preview?.left ?? []} />
          <Told words={offer.value.arming.words} own={offer.value.ownWords} />
          {preview && <Given {...preview} />}
          <ArmForm
            machine={name}
            tail={offer.value.tail}
            secrets={offer.value.secrets}
            arm={arm.bind(null, id)}
          />
        </>
      ) : (
        <Ruled title="Blockers">
          <ul className="space-y-1">
            {offer.problems.map(({ message }) => (
              <li key={message} className="border-l-2 pl-2 border-error">
                {message}
              </li>
            ))}
          </ul>
        </Ruled>
      )}
    </Page>
  );
}

function Lost({ erases }: Pick<Arming, "erases">) {
  return (
    <Ruled title="Data that will be erased">
      <table className="table" aria-label="Drives whose contents are erased">
        <thead>
          <tr>
            <th>Bay</th>
            <th>Drive</th>
            <th>Serial</th>
            <th>Contents</th>
          </tr>
        </thead>
        <tbody>
          {erases.map(({ look, holds, bay, serial }) => (
            <tr key={`${look} ${serial}`}>
              <td className="value">{bay || "not collected"}</td>
              <td className="font-semibold">{look.replace(/^bay [^,]*, /, "")}</td>
              <td className="value">{serial || "not collected"}</td>
              <td>{holds}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Ruled>
  );
}

/** Warnings that nobody will see and shells that stay open, each with its end. */
const Left = ({ left }: Pick<ArmingPreview, "left">) =>
  left.length === 0 ? null : (
    <Ruled title="Hidden and open items">
      <ul className="space-y-0.5">
        {left.map(({ kind, what, until }) => (
          <li key={`${kind} ${what}`}>
            {kind}: <span className="value">{what}</span>{" "}
            {until ? (
              <>
                , until <Day at={until} />
              </>
            ) : (
              <span className="font-semibold text-error">without an end date</span>
            )}
          </li>
        ))}
      </ul>
    </Ruled>
  );

/** What is in force under each name, and every text that the machine is given. */
function Given({ parameters, texts }: ArmingPreview) {
  return (
    <div className="mb-6">
      {parameters.length > 0 && (
        <details>
          <summary className="link cursor-pointer">
            Parameters and their sources ({parameters.length})
          </summary>
          <ParametersInForce all={parameters} />
        </details>
      )}
      {texts.map(({ name, text }) => (
        <details key={name} className="mt-1">
          <summary className="link cursor-pointer">
            Contents of {name} ({text.trimEnd().split("\n").length} lines)
          </summary>
          <pre className="value mt-1 overflow-x-auto border p-2 text-[0.86rem] border-base-300">{text}</pre>
        </details>
      ))}
    </div>
  );
}

/** The command line of the kernel, with where each word comes from; addresses stand in it once the machine asks. */
function Told({ words, own }: { words: readonly string[]; own: number }) {
  const first = words.length - own;
  return (
    <details>
      <summary className="link cursor-pointer">Kernel command line ({words.length} words)</summary>
      <dl className="mt-1 grid grid-cols-[minmax(0,auto)_1fr] gap-x-6">
        {words.map((word, i) => (
          <div key={word} className="contents">
            <dt className="value [overflow-wrap:anywhere]">{word.replace(/\{(\w+)\.at\}/, ".../$1/")}</dt>
            <dd className="quiet">{i < first ? "by the type of answer file" : "by the OS profile"}</dd>
          </div>
        ))}
      </dl>
    </details>
  );
}
