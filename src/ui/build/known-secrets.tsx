import type { KnownSecret } from "@/core/identity";
import { sealedAs } from "@/core/parameter";
import { Moment } from "../frame/person";
import { Signal } from "../frame/signal";

const state = ({ opens, isSealed, isLost, destroyedAt }: KnownSecret): string => {
  const what = opens.startsWith(sealedAs("")) ? "value" : "hash";
  if (isLost) return "encrypted with a key that this server does not have: store it again";
  if (isSealed) return `${what} stored encrypted for the answer file until the run ends`;
  return destroyedAt ? `${what} destroyed` : "fingerprint only";
};

/** What is known of the passwords of a build, and which of them open something else too. */
export function KnownSecrets({
  known,
  onForget,
}: {
  known: readonly KnownSecret[];
  onForget: (opens: string) => void;
}) {
  if (known.length === 0) return <p className="quiet">No password hash or fingerprint is stored yet.</p>;
  return (
    <table className="table">
      <thead>
        <tr>
          <th>Account</th>
          <th>Stored</th>
          <th>Reused for</th>
          <th>Since</th>
          <th>
            <span className="sr-only">Delete</span>
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
                "none known"
              )}
            </td>
            <td className="whitespace-nowrap">
              <Moment at={one.destroyedAt ?? one.at} />, {one.by}
            </td>
            <td>
              <button type="button" className="link quiet" onClick={() => onForget(one.opens)}>
                Delete<span className="sr-only"> the password of {one.opens}</span>
              </button>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
