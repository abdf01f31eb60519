import type { Answer } from "@/contract";
import type { Hashes } from "@/core/answers";
import { isHash, type KnownSecret, type SecretsView } from "@/core/identity";
import { parameterNameProblem, parameterValueProblem, sealedAs } from "@/core/parameter";
import { buildRows, secretRows, type Stamp, type Tx } from "@/db";
import { no, yes } from "./answer";
import type { Desk } from "./desk";
import { markOf, markSalt, seal, unseal } from "./seal-key";

const place = (buildId: string, opens: string): string => `${buildId} ${opens}`;

/** What is known of the passwords of a build; null when there is no such build. */
export async function secretsView({ db }: Desk, buildId: string): Promise<SecretsView | null> {
  if (!(await buildRows.one(db, buildId))) return null;
  const [rows, marks] = await Promise.all([
    secretRows.ofBuild(db, buildId),
    secretRows.sameMarks(db, [buildId]),
  ]);
  const known = rows.map(({ opens, sealed, at, by, destroyedAt }): KnownSecret => ({
    ...{ opens, at, by, destroyedAt },
    isSealed: sealed !== null,
    isLost: sealed !== null && unseal(sealed, place(buildId, opens)) === null,
    same: marks.get(buildId)?.find((m) => m.opens === opens)?.same ?? [],
  }));
  return { salt: markSalt(), known };
}

export interface Given {
  /** The account, or in words what else it opens. */
  opens: string;
  /** For the answer file: SHA-512 of crypt(3) with a salt of its own; null where only the mark is wanted. */
  hash: string | null;
  /** The same password hashed with the server's salt: it is marked and not kept. */
  toMark: string;
}

/** Seals what a browser has hashed. The password itself never comes here. */
export async function sealSecret(
  desk: Desk,
  buildId: string,
  { opens, hash, toMark }: Given,
): Promise<Answer<SecretsView>> {
  if (!isHash(toMark) || (hash !== null && !isHash(hash)))
    return no(
      "This is not a hash in the format of crypt(3), so nothing was saved. Load the page again and try again.",
    );
  if (!toMark.startsWith(`$6$${markSalt()}$`))
    return no("The salt of this server has changed meanwhile. Load the page again and try again.");
  if (hash === toMark)
    return no("The hash for the answer file needs its own salt. Load the page again and try again.");
  const row = {
    opens,
    mark: markOf(toMark),
    sealed: hash === null ? null : seal(hash, place(buildId, opens)),
  };
  if (!(await buildRows.one(desk.db, buildId))) return no("This build no longer exists.");
  await desk.write((tx) => secretRows.keep(tx, buildId, row, desk.stamp()));
  return yes((await secretsView(desk, buildId))!);
}

/**
 * Seals the value of a secret parameter for one sheet. It is in no document: what was typed is kept sealed until the run ends,
 * and its mark tells where else the same value stands.
 */
export async function sealParameter(
  desk: Desk,
  buildId: string,
  name: string,
  value: string,
): Promise<Answer<SecretsView>> {
  const problem = parameterNameProblem(name) ?? (value === "" ? "it is empty" : parameterValueProblem(value));
  if (problem) return no(`The value was not stored: ${problem}.`);
  if (!(await buildRows.one(desk.db, buildId))) return no("This build no longer exists.");
  const opens = sealedAs(name);
  const row = { opens, mark: markOf(`${opens}\0${value}`), sealed: seal(value, place(buildId, opens)) };
  await desk.write((tx) => secretRows.keep(tx, buildId, row, desk.stamp()));
  return yes((await secretsView(desk, buildId))!);
}

/** Sealed hashes and values as a page may show them: each stands under the name of what it opens. */
export const masked = (hashes: Hashes): Hashes =>
  new Map([...hashes].map(([opens, secret]) => [opens, isHash(secret) ? secret : `(stored: ${opens})`]));

/** Forgets all that is known of one password. */
export async function forgetSecret(desk: Desk, buildId: string, opens: string): Promise<Answer<SecretsView>> {
  await desk.write((tx) => secretRows.forget(tx, buildId, opens, desk.stamp()));
  const view = await secretsView(desk, buildId);
  return view ? yes(view) : no("This build no longer exists.");
}

/** The sealed hashes of a build by what they open, for the file that is written now. */
export async function hashesOf({ db }: Desk, buildId: string): Promise<Hashes> {
  const rows = await secretRows.ofBuild(db, buildId);
  return new Map(
    rows.flatMap(({ opens, sealed }): [string, string][] => {
      const hash = sealed === null ? null : unseal(sealed, place(buildId, opens));
      return hash === null ? [] : [[opens, hash]];
    }),
  );
}

/** The run is over: what was sealed for it goes, and its log says so. Null where nothing was sealed. */
export async function destroySecrets(tx: Tx, buildId: string, stamp: Stamp): Promise<string | null> {
  const gone = await secretRows.destroy(tx, buildId, stamp);
  return gone.length === 0
    ? null
    : `The stored ${gone.length === 1 ? "hash" : "hashes"} of ${gone.join(", ")} ${gone.length === 1 ? "was" : "were"} destroyed.`;
}
