import { secretsNamed } from "@/core/answers";
import type { PasswordsView } from "@/core/identity";
import { buildRows } from "@/db";
import type { Desk } from "./desk";
import { secretsView } from "./seals";
import { sourcesOf } from "./sources";

const wordsIn = (...texts: (string | null | undefined)[]): string[] => [
  ...new Set(
    texts
      .flatMap((text) => (text ?? "").toLowerCase().split(/[^\p{L}\p{N}]+/u))
      .filter((word) => word.length > 2),
  ),
];

/** What the page of passwords begins with; null when there is no such sheet. */
export async function passwordsView(desk: Desk, id: string): Promise<PasswordsView | null> {
  const build = await buildRows.one(desk.db, id);
  const secrets = await secretsView(desk, id);
  if (!build || !secrets) return null;
  const { sheet, number } = build;
  const sources = await sourcesOf(desk, id, sheet);
  const { machine, site, profile } = sources;
  const { accounts, hostName, domain, keyboard } = sheet.answers;
  const chassis = machine?.document.facts.chassis;
  return {
    ...{ id, number, subject: sheet.subject, secrets },
    family: profile && `${profile.name} ${profile.version}`,
    rules: profile?.passwords ?? null,
    ruleWords: profile?.passwords.words ?? "",
    accounts: accounts.map(({ name, role, logIn }) => ({ name, role, logIn })),
    machine: machine?.name ?? null,
    keyboards: { sends: site?.keyboard ?? "", installer: keyboard },
    words: wordsIn(
      ...[hostName, domain, machine?.name, site?.name, site?.room, site?.domain, profile?.name],
      ...[sheet.subject, chassis?.maker, chassis?.model, ...accounts.map(({ name }) => name)],
    ),
    parameters: secretsNamed(sources),
    defaultLogins: (profile?.defaultLogins ?? []).map(({ name, opens }) => ({ name, opens })),
    secrets,
  };
}
