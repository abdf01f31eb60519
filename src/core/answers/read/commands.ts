import { kickstartWords } from "../write/lint-kickstart";
import { roleOf, type SaidAccount } from "./draft";

const after = (words: readonly string[], option: string): string => {
  const at = words.indexOf(option);
  return at < 0 ? "" : (words[at + 1] ?? "");
};

/**
 * Accounts that a shell's commands make or give keys to, in their order: lines of useradd, of chpasswd -e, and what is
 * appended to an authorized_keys file; and the services that they enable. The commands that were not understood come back.
 */
export function accountsFromCommands(
  commands: readonly string[],
  known: readonly SaidAccount[],
  line: number,
): { accounts: SaidAccount[]; services: string[]; rest: string[] } {
  const services: string[] = [];
  const accounts = known.map((a) => ({ ...a }));
  const named = (name: string): SaidAccount => {
    const there = accounts.find((a) => a.name === name);
    if (there) return there;
    const role = name === "root" ? "super-user" : "ordinary";
    const made: SaidAccount = { name, role, logIn: "none", keys: [], hadHash: false, line };
    accounts.push(made);
    return made;
  };
  const rest = commands.filter((command) => {
    const words = kickstartWords(command) ?? [];
    if (words.includes("useradd")) {
      const made = words.slice(words.indexOf("useradd"));
      named(made.at(-1) ?? "").role = roleOf(after(made, "-G").split(","), after(made, "-s"));
      return false;
    }
    const key = />> \S*\/(?:home\/)?([a-z_][a-z0-9_-]*)\/\.ssh\/authorized_keys'?$/.exec(command);
    if (key) {
      const account = named(key[1]!);
      account.keys.push(words.at(words.indexOf("printf") + 2) ?? "");
      if (account.logIn === "none") account.logIn = "key";
      return false;
    }
    if (/\| chpasswd -e$/.test(command)) {
      const [name = ""] = (words.at(words.indexOf("printf") + 2) ?? "").split(":");
      Object.assign(named(name), { logIn: "password", hadHash: true });
      return false;
    }
    if (words[0] === "systemctl" && words[1] === "enable" && words.length === 3) {
      services.push(words[2]!);
      return false;
    }
    return !/^(?:install -d -m 700|chown|chmod 600) .*\.ssh/.test(command);
  });
  return { accounts, services, rest };
}
