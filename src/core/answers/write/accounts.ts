import { shellWord } from "../../network";
import type { Gap, IntentAccount } from "../intent";

/** What is still open about an account in a file: its password where it is typed, a key that nobody has given, elevation without a password. */
export function accountNotes(
  { name, role, logIn, hash, keys }: IntentAccount,
  where: string,
  shellRefuses = false,
): Gap[] {
  const gap = (message: string): Gap[] => [{ path: "answers.accounts", message }];
  if (logIn === "password")
    return hash ? [] : gap(`set the password of ${name} ${where}: no hash of it is stored`);
  if (logIn !== "key") return [];
  if (role === "service")
    return gap(`${name} has no shell, so its key is not used; its program runs under it`);
  if (keys.length === 0)
    return gap(
      `${name} is created locked: it has no public key on the sheet, and is unlocked at the first boot`,
    );
  if (hash)
    return shellRefuses
      ? []
      : gap(
          `${name} uses key login, and a password for elevation only: password login over SSH is disabled at the first boot`,
        );
  return role === "administrator"
    ? gap(
        `${name} uses key login and has no password, which elevation needs: store one, or set it at the first boot`,
      )
    : [];
}

/** Commands of a POSIX shell that put the keys of an account in their place; each does no harm when it is run twice. */
export function keyCommands({ name, role, keys }: IntentAccount): string[] {
  if (keys.length === 0 || role === "service") return [];
  const user = shellWord(name);
  const folder = `${role === "super-user" ? "/root" : `/home/${name}`}/.ssh`;
  const file = shellWord(`${folder}/authorized_keys`);
  return [
    `install -d -m 700 -o ${user} -g ${user} ${shellWord(folder)}`,
    ...keys.map(
      (key) =>
        `grep -qxF ${shellWord(key)} ${file} 2>/dev/null || printf '%s\\n' ${shellWord(key)} >> ${file}`,
    ),
    `chown ${user}: ${file}`,
    `chmod 600 ${file}`,
  ];
}

/** Commands that make an account in a new system, with its keys; each does no harm when it is run twice. */
export function accountCommands(account: IntentAccount, adminGroup: string): string[] {
  const { name, role, hash, logIn } = account;
  const user = shellWord(name);
  const kind = {
    "super-user": "",
    administrator: `-m -s /bin/bash -G ${shellWord(adminGroup)}`,
    ordinary: "-m -s /bin/bash",
    service: "-r -s /usr/sbin/nologin",
  }[role];
  const made = kind === "" ? [] : [`id ${user} >/dev/null 2>&1 || useradd ${kind} ${user}`];
  const secret =
    hash && logIn !== "none" ? [`printf '%s\\n' ${shellWord(`${name}:${hash}`)} | chpasswd -e`] : [];
  return [...made, ...secret, ...keyCommands(account)];
}
