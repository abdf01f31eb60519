import Link from "next/link";
import { notFound } from "next/navigation";
import type { Arming } from "@/core/netboot";
import { formatDuration } from "@/core/units";
import { buildView } from "@/server/builds";
import { armingOffer } from "@/server/netboot/arm";
import { armingPreview, type ArmingPreview } from "@/server/netboot/preview";
import { ParametersInForce } from "@/ui/build/parameters";
import { Day } from "@/ui/frame/person";
import { Page, Ruled } from "@/ui/frame/page";
import { ArmForm } from "@/ui/netboot/arm-form";
import { arm } from "../../netboot/actions";
import { orDamaged } from "../../../or-damaged";
import { desk } from "../../../desk";

export const dynamic = "force-dynamic";
export const metadata = { title: "Arm for network boot" };

export default async function ArmPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const view = await orDamaged(buildView(await desk(), id));
  if (!view) notFound();
  const offer = await armingOffer(await desk(), id);
  const preview = offer.ok ? await armingPreview(await desk(), id, offer.value) : null;
  const name = view.context.machine?.name ?? "no machine yet";
  return (
    <Page
      title={`Arm ${name} for one installation over the network`}
      lead={`${view.build.number} ${view.build.sheet.subject}`}
      aside={
        <div className="flex gap-2">
          <Link className="btn" href="/builds/netboot">
            The board
          </Link>
          <Link className="btn" href={`/builds/${id}`}>
            Back to the sheet
          </Link>
        </div>
      }
    >
      {offer.ok ? (
        <>
          <Ruled title="What will happen" note="as soon as the machine asks">
            <ul className="space-y-0.5">
              <li>
                {offer.value.arming.image.name} is installed from revision {offer.value.arming.build.revision}
                , in {formatDuration(offer.value.arming.likelySeconds)} likely.
              </li>
              <li>
                Only a machine that asks from {offer.value.arming.machine.macs.join(" or ")} and tells the
                serial number of {name} is let in, and only once. Neither is secret: below you choose whether
                it also has to show a code.
              </li>
              {offer.value.uncompared && <li>{offer.value.uncompared}</li>}
              {offer.value.asks.length > 0 && (
                <li className="border-l-2 pl-2 border-error">
                  No password is sealed for {offer.value.asks.join(" and ")}: the installer stops and asks for
                  it at the machine, where nobody may be.
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
        <Ruled title="What stands in the way">
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
    <Ruled title="What is lost">
      <table className="table" aria-label="Drives that lose what stands on them">
        <thead>
          <tr>
            <th>Bay</th>
            <th>Drive</th>
            <th>Serial</th>
            <th>On it</th>
          </tr>
        </thead>
        <tbody>
          {erases.map(({ look, holds, bay, serial }) => (
            <tr key={`${look} ${serial}`}>
              <td className="value">{bay || "not read"}</td>
              <td className="font-semibold">{look.replace(/^bay [^,]*, /, "")}</td>
              <td className="value">{serial || "not read"}</td>
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
    <Ruled title="What it leaves hidden or open">
      <ul className="space-y-0.5">
        {left.map(({ kind, what, until }) => (
          <li key={`${kind} ${what}`}>
            {kind}: <span className="value">{what}</span>{" "}
            {until ? (
              <>
                , until <Day at={until} />
              </>
            ) : (
              <span className="font-semibold text-error">with no day on which it ends</span>
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
            Its parameters, {parameters.length} of them, and where each comes from
          </summary>
          <ParametersInForce all={parameters} />
        </details>
      )}
      {texts.map(({ name, text }) => (
        <details key={name} className="mt-1">
          <summary className="link cursor-pointer">
            What it is given: {name}, {text.trimEnd().split("\n").length} lines
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
      <summary className="link cursor-pointer">What its kernel is told, in {words.length} words</summary>
      <dl className="mt-1 grid grid-cols-[minmax(0,auto)_1fr] gap-x-6">
        {words.map((word, i) => (
          <div key={word} className="contents">
            <dt className="value [overflow-wrap:anywhere]">{word.replace(/\{(\w+)\.at\}/, ".../$1/")}</dt>
            <dd className="quiet">{i < first ? "by the kind of its answer file" : "by the profile"}</dd>
          </div>
        ))}
      </dl>
    </details>
  );
}
