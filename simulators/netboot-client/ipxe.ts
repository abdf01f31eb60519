// As much of iPXE as boot scripts use: settings, labels, failures that end a script unless an || follows, and what is read over
// HTTP. A command that it does not know fails, as in the real one of 2019.

/** What the script may do beyond its own lines. */
export interface Surroundings {
  settings: Record<string, string>;
  /** Reads a file whole; false where it could not be. */
  read(url: string): Promise<{ ok: boolean; text: string }>;
  /** Whether the firmware can start what was read as a kernel, as it is found out here: before it is started. */
  starts(kernel: string): boolean;
  say(words: string): void;
  /** What a hand at the console types when it is asked; null where nobody is there. */
  types?: string | null;
  sleep(seconds: number): Promise<void>;
}

export type Outcome =
  { kind: "boots"; kernel: string; initrd: string[]; words: string[] } | { kind: "leaves"; why: string };

/** A script that goes round in a circle is ended. */
const MOST_COMMANDS = 20_000;

class Failed extends Error {}

interface Loaded {
  kernel: { url: string; words: string[] } | null;
  initrd: { name: string; url: string }[];
}

/** `${name}` and `${name:form}`, of which the forms are those that scripts here use. */
const expand = (line: string, settings: Readonly<Record<string, string>>): string =>
  line.replace(/\$\{([^}:]+)(?::([a-z]+))?\}/g, (_, name: string, form: string | undefined) => {
    const value = settings[name] ?? "";
    if (form === "uristring") return encodeURIComponent(value);
    return form === "hexhyp" ? value.replaceAll(":", "-") : value;
  });

/** An address that begins with letters and a colon is one with a scheme, whatever the rest looks like. */
function addressOf(text: string, base: string): string {
  if (/^[a-z][^/]*:/i.test(text) && !/^https?:\/\//.test(text)) throw new Failed("Operation not supported");
  return new URL(text, base).href;
}

/** Runs a script, and those that it chains to, until the machine starts something or goes on to its next device. */
export async function runScript(first: string, base: string, around: Surroundings): Promise<Outcome> {
  const loaded: Loaded = { kernel: null, initrd: [] };
  let [script, at, line] = [linesOf(first), base, 0];
  for (let count = 0; count < MOST_COMMANDS; count += 1) {
    const text = script[line];
    if (text === undefined) return { kind: "leaves", why: "the script ended" };
    line += 1;
    const parts = expand(text, around.settings).split(/\s*(\|\||&&)\s*/);
    let failed: string | null = null;
    for (let i = 0; i < parts.length; i += 2) {
      const joined = parts[i - 1];
      if ((joined === "||" && failed === null) || (joined === "&&" && failed !== null)) continue;
      failed = null;
      const [command = "", ...words] = (parts[i] ?? "").trim().split(/\s+/);
      if (command === "" || command.startsWith(":")) continue;
      try {
        const next = await carryOut(command, words, { around, loaded, at, script });
        if (next.outcome) return next.outcome;
        if (next.line !== undefined) line = next.line;
        if (next.script) [script, at, line] = [next.script, next.at ?? at, 0];
      } catch (error) {
        if (!(error instanceof Failed)) throw error;
        failed = error.message;
        around.say(failed);
      }
    }
    if (failed !== null) return { kind: "leaves", why: failed };
  }
  return { kind: "leaves", why: "the script goes round in a circle" };
}

function linesOf(script: string): string[] {
  if (!/^#!ipxe\n/.test(script) || script.includes("\r") || !script.endsWith("\n"))
    throw new Error("Exec format error: this is no script for iPXE.");
  return script.split("\n").slice(1);
}

interface Next {
  outcome?: Outcome;
  line?: number;
  script?: string[];
  at?: string;
}

async function carryOut(
  command: string,
  words: string[],
  { around, loaded, at, script }: { around: Surroundings; loaded: Loaded; at: string; script: string[] },
): Promise<Next> {
  const { settings } = around;
  const [name = ""] = words;
  const readWhole = async (text: string): Promise<{ url: string; text: string }> => {
    const url = addressOf(text, at);
    const { ok, text: body } = await around.read(url);
    if (!ok) throw new Failed(`${url} could not be read`);
    return { url, text: body };
  };
  switch (command) {
    case "echo":
      around.say(words.join(" "));
      return {};
    case "set":
      settings[name.replace(/:int32$/, "")] = words.slice(1).join(" ");
      return {};
    case "prompt":
      around.say(words.slice(2).join(" "));
      if ((around.types ?? null) === null) throw new Failed("");
      return {};
    case "read":
      settings[name] = around.types ?? "";
      return {};
    case "clear":
      delete settings[name];
      return {};
    case "inc":
      settings[name] = String(Number(settings[name] ?? 0) + 1);
      return {};
    case "iseq":
      if (words[0] !== words[1]) throw new Failed("");
      return {};
    case "sleep":
      await around.sleep(Number(name));
      return {};
    case "imgfree":
      Object.assign(loaded, { kernel: null, initrd: [] });
      return {};
    case "goto": {
      const line = script.indexOf(`:${name}`);
      if (line < 0) throw new Failed(`no label ${name}`);
      return { line };
    }
    case "chain": {
      const { url, text } = await readWhole(words.at(-1)!);
      return { script: linesOf(text), at: url };
    }
    case "kernel": {
      const { url, text } = await readWhole(name);
      if (!around.starts(text)) throw new Failed("Exec format error");
      loaded.kernel = { url, words: words.slice(1) };
      return {};
    }
    case "initrd": {
      const { url } = await readWhole(words.at(-1)!);
      loaded.initrd.push({ url, name: name === "--name" ? words[1]! : "" });
      return {};
    }
    case "boot":
      return { outcome: started(loaded, settings["platform"] === "efi") };
    case "exit":
      return { outcome: { kind: "leaves", why: name && name !== "0" ? "told to" : "" } };
    default:
      throw new Failed(`${command}: command not found`);
  }
}

/** Under UEFI the kernel finds its files by the names on its command line. */
function started({ kernel, initrd }: Loaded, byName: boolean): Outcome {
  if (!kernel) throw new Failed("no kernel");
  const named = kernel.words.flatMap((w) => /^initrd=(.*)$/.exec(w)?.[1] ?? []);
  const found = byName ? initrd.filter((i) => named.includes(i.name)) : initrd;
  return { kind: "boots", kernel: kernel.url, initrd: found.map((i) => i.url), words: kernel.words };
}
