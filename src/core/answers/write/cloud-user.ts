import { xkbNames } from "../../identity";
import type { IntentAccount } from "../intent";

/** An account in the words of cloud-init's module "users". */
export const cloudUser = (
  { name, role, logIn, hash, keys }: IntentAccount,
  adminGroup: string,
): Record<string, unknown> => ({
  name,
  ...(role === "administrator" && { groups: [adminGroup] }),
  ...(role === "service"
    ? { system: true, shell: "/usr/sbin/nologin", no_create_home: true }
    : role !== "super-user" && { shell: "/bin/bash" }),
  ...(hash && logIn !== "none"
    ? // The super-user is there before this is read, and "passwd" is given to new accounts only.
      { [role === "super-user" ? "hashed_passwd" : "passwd"]: hash, lock_passwd: false }
    : { lock_passwd: true }),
  ...(keys.length > 0 && { ssh_authorized_keys: keys }),
});

/** Without it the keys of the super-user open nothing but a line of advice. */
export const cloudLogIn = (accounts: readonly IntentAccount[]): Record<string, unknown> =>
  accounts.some(({ role, keys }) => role === "super-user" && keys.length > 0) ? { disable_root: false } : {};

/** The name of a machine in the words of cloud-init. */
export const cloudNames = (hostName: string, domain: string): Record<string, unknown> => ({
  hostname: hostName,
  ...(domain !== "" && { fqdn: `${hostName}.${domain}`, prefer_fqdn_over_hostname: false }),
});

/** A layout, and its variant where it has one. */
export function cloudKeyboard(name: string): Record<string, unknown> {
  const { layout, variant } = xkbNames(name);
  return variant === "" ? { layout } : { layout, variant };
}
