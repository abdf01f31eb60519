import { commandProblem } from "../software";
import { kickstartWords } from "../write/lint-kickstart";
import { roleOf, type SaidAccount } from "./draft";

const after = (words: readonly string[], option: string): string => {
  const at = words.indexOf(option);
  return at < 0 ? "" : (words[at + 1] ?? "");
};

/** The commands of one line, parted at "; " outside of quotes, as a POSIX shell parts them. */
export function partedCommands(script: string): string[] {
  const parts: string[] = [];
  let [part, quote] = ["", ""];
  for (let i = 0; i < script.length; i += 1) {
    const sign = script[i]!;
    if (sign === "\\" && quote !== "'") {
      part += sign + (script[i + 1] ?? "");
      i += 1;
      continue;
    }
    if (quote === "" && sign === ";" && script[i + 1] === " ") {
      parts.push(part);
      part = "";
      i += 1;
      continue;
    }
    if (quote === "" && (sign === "'" || sign === '"')) quote = sign;
    else if (sign === quote) quote = "";
    part += sign;
  }
  return [...parts, part].filter((p) => p.trim() !== "");
}

/**
 * Accounts that a shell's commands make or give keys to, in their order: lines of useradd, of chpasswd -e, and what is
 * appended to an authorized_keys file; the services that they enable, and what they give to a shell. The commands that were not understood come back.
 */
export function accountsFromCommands(
  commands: readonly string[],
  known: readonly SaidAccount[],
  line: number,
): { accounts: SaidAccount[]; services: string[]; finish: string[]; rest: string[] } {
  const services: string[] = [];
  const finish: string[] = [];
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
    if (words[0] === "sh" && words[1] === "-c" && words.length === 3 && commandProblem(words[2]!) === null) {
      finish.push(words[2]!);
      return false;
    }
    // What zone E has of the network is not read back from the files that are written of it.
    return !/^set -e$|^mkdir -p \/etc(?:\/systemd\/network)? && printf |^(?:install -d -m 700|chown|chmod 600) .*\.ssh/.test(
      command,
    );
  });
  return { accounts, services, finish, rest };
}
