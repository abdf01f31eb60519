import { accountNameProblem, type Account } from "../identity";
import type { Profile } from "../image";

/** A person's name as an account name: "J. Pell" becomes "jpell". */
const accountName = (person: string): string =>
  person
    .normalize("NFD")
    .toLowerCase()
    .replace(/[^a-z0-9_-]/g, "")
    .replace(/^[^a-z_]+/, "")
    .slice(0, 32);

/**
 * The accounts that a sheet without any begins with: one administrator in the name of who plans it, where the family
 * wants one beside its super-user, else the super-user. By password, since no key is known yet.
 */
export function usualAccounts({ accounts }: Profile, person: string): Account[] {
  if (!accounts.needsAdministrator)
    return [{ name: accounts.superUser, role: "super-user", logIn: "password", keys: [] }];
  const own = accountName(person);
  const fits = accountNameProblem(own) === null && !accounts.reserved.includes(own);
  return [{ name: fits ? own : "sysadmin", role: "administrator", logIn: "password", keys: [] }];
}
