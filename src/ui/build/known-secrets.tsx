import type { KnownSecret } from "@/core/identity";
import { sealedAs } from "@/core/parameter";
import { Moment } from "../frame/person";
import { Signal } from "../frame/signal";

const state = ({ opens, isSealed, isLost, destroyedAt }: KnownSecret): string => {
  const what = opens.startsWith(sealedAs("")) ? "value" : "hash";
  if (isLost) return "sealed with another key than this server has: seal it anew";
  if (isSealed) return `its ${what} is sealed for the answer file, until the run ends`;
  return destroyedAt ? `its ${what} was destroyed` : "only its mark is kept";
};

/** What is known of the passwords of a build, and which of them open something else too. */
export function KnownSecrets({
  known,
  onForget,
}: {
  known: readonly KnownSecret[];
  onForget: (opens: string) => void;
}) {
  if (known.length === 0) return <p className="quiet">Nothing is sealed or marked yet.</p>;
  return (
    <table className="table">
      <thead>
        <tr>
          <th>Opens</th>
          <th>What is kept</th>
          <th>Also opens</th>
          <th>Since</th>
          <th>
            <span className="sr-only">Forget</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {known.map((one) => (
          <tr key={one.opens}>
            <td>{one.opens}</td>
            <td>{state(one)}</td>
            <td>
              {one.same.length > 0 ? (
                <span className="font-semibold">
                  <Signal severity="caution" size={12} /> {one.same.join(", ")}
                </span>
              ) : (
                "nothing that is known"
              )}
            </td>
            <td className="whitespace-nowrap">
              <Moment at={one.destroyedAt ?? one.at} />, {one.by}
            </td>
            <td>
              <button type="button" className="link quiet" onClick={() => onForget(one.opens)}>
                forget<span className="sr-only"> the password of {one.opens}</span>
              </button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
