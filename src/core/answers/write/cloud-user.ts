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
  ...(hash && logIn !== "none" ? { passwd: hash, lock_passwd: false } : { lock_passwd: true }),
  ...(keys.length > 0 && { ssh_authorized_keys: keys }),
});

/** The name of a machine in the words of cloud-init. */
export const cloudNames = (hostName: string, domain: string): Record<string, unknown> => ({
  hostname: hostName,
  ...(domain !== "" && { fqdn: `${hostName}.${domain}`, prefer_fqdn_over_hostname: false }),
});
