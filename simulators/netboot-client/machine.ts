import { setTimeout as wait } from "node:timers/promises";
import { fetchOnce } from "./fetch";
import { runScript, type Outcome } from "./ipxe";

export const FAULTS = [
  "no DHCP",
  "cut transfers",
  "repeated reports",
  "wrong serial",
  "stands still",
  "fails",
] as const;
export type Fault = (typeof FAULTS)[number];

/** One machine that starts over the network. */
export interface Client {
  name: string;
  mac: string;
  serial: string;
  uuid: string;
  maker: string;
  model: string;
  firmware: "bios" | "uefi" | "uefi over http";
  fault: Fault | null;
  /** What a person types where its console asks for a code; nobody is there without it. */
  code?: string | undefined;
}

export interface Told {
  /** In the order in which it happened. */
  said: string[];
  /** How its last start ended: with its own disk, with an installer, or not at all. */
  ended: "starts from its disk" | "stands still" | "has no address";
  /** How often an installer was started. */
  installed: number;
}

export interface Walk {
  /** Where the boot service is. */
  base: string;
  /** Seconds of a machine in one of the simulation's; waits are so much shorter. */
  pace: number;
  /** The loader that firmware reads over HTTP first; none where the site has none. */
  loader?: string;
}

/** What firmware takes for a kernel: under UEFI a program of its own kind, under BIOS what is only found when it is started. */
const isProgram = (body: string): boolean => body.startsWith("MZ");

/**
 * One machine from power on until it has nothing left to do: firmware, iPXE, installer, restart over the network, and the first
 * start of what was installed. It does with the real boot service what real ones were seen to do.
 */
export async function walkMachine(client: Client, walk: Walk): Promise<Told> {
  const told: Told = { said: [], ended: "starts from its disk", installed: 0 };
  const say = (words: string): void => void told.said.push(words);
  if (client.fault === "no DHCP") {
    say("no answer to DHCP");
    return { ...told, ended: "has no address" };
  }
  for (let start = 1; start <= 3; start += 1) {
    const outcome = await startOver(client, walk, say);
    if (outcome.kind === "leaves") {
      say("starts from its own disk");
      if (told.installed > 0) await firstStart(client, walk, say);
      return told;
    }
    told.installed += 1;
    const went = await install(client, outcome, walk, say);
    if (!went) return { ...told, ended: "stands still" };
    say("starts again, over the network");
  }
  return told;
}

/** Firmware and iPXE, with what they tell of themselves. */
async function startOver(client: Client, walk: Walk, say: (words: string) => void): Promise<Outcome> {
  const { base, pace, loader } = walk;
  const efi = client.firmware !== "bios";
  if (client.firmware === "uefi over http" && loader)
    for (const method of ["HEAD", "GET"]) {
      const { status } = await fetchOnce(loader, { method });
      if (status !== 200) return { kind: "leaves", why: "no loader" };
    }
  let cuts = client.fault === "cut transfers" ? 2 : 0;
  const read = async (url: string): Promise<{ ok: boolean; text: string }> => {
    // The first transfers of a bad cable break off; that of a script is too short for it.
    const cutAfter = cuts > 0 && /kernel|initrd/.test(url) ? 64 * 1024 : undefined;
    if (cutAfter !== undefined) cuts -= 1;
    const { status, body, whole } = await fetchOnce(url, { kept: 65_536, ...(cutAfter ? { cutAfter } : {}) });
    return { ok: status === 200 && whole, text: body.toString("latin1") };
  };
  const first = await read(`${base}/boot.ipxe`);
  if (!first.ok) return { kind: "leaves", why: "no boot script" };
  return runScript(first.text, `${base}/boot.ipxe`, {
    settings: {
      ...{ "netX/mac": client.mac, uuid: client.uuid, manufacturer: client.maker, product: client.model },
      serial: client.fault === "wrong serial" ? `${client.serial}X` : client.serial,
      platform: efi ? "efi" : "pcbios",
    },
    read,
    starts: (kernel) => !efi || isProgram(kernel),
    say: (words) => words && say(words),
    types: client.code ?? null,
    sleep: (seconds) => wait((seconds * 1000) / pace).then(() => undefined),
  });
}

/** Where an installation finds what it is told to fetch and to tell. */
const places = new WeakMap<Client, { script: string; report: string }>();

/** Where the answers of each kind of installer are, by the word of the command line that leads to them. */
function answersOf(words: readonly string[]): { urls: string[]; more: string[] } {
  const word = (name: string): string | undefined =>
    words.find((w) => w.startsWith(`${name}=`))?.slice(name.length + 1);
  const seed = /^nocloud(?:-net)?;s=(.*)$/.exec(word("ds") ?? "")?.[1];
  if (seed) {
    const image = word("url");
    return {
      urls: ["meta-data", "user-data", "vendor-data"].map((f) => seed + f),
      more: image ? [image] : [],
    };
  }
  const [kickstart, tree] = [word("inst.ks"), word("inst.stage2")];
  if (kickstart) return { urls: [kickstart], more: tree ? [`${tree}.treeinfo`] : [] };
  const preseed = word("url");
  return { urls: preseed ? [preseed] : [], more: [] };
}

/** The installer: reads its answers, works, and does what stands at their end. False where it comes to no end. */
async function install(
  client: Client,
  { words }: Extract<Outcome, { kind: "boots" }>,
  { pace }: Walk,
  say: (words: string) => void,
): Promise<boolean> {
  const { urls, more } = answersOf(words);
  if (urls.length === 0) {
    say("the installer finds no answers and asks a person");
    return false;
  }
  let text = "";
  for (const url of urls) {
    const { status, body } = await fetchOnce(url);
    if (status !== 200) {
      say(`the installer cannot read its answers (${status})`);
      return false;
    }
    text += body.toString("utf8");
  }
  for (const url of more) await fetchOnce(url, { kept: 0 });
  say("the installer has its answers");
  const script = /https?:\/\/[^\s"'\\]+\/first-boot/.exec(text)?.[0];
  const report = /https?:\/\/[^\s"'\\]+\/report\//.exec(text)?.[0];
  if (client.fault === "stands still") return false;
  await wait((300 * 1000) / pace);
  if (!script || !report) {
    say("the answers lead to no first start");
    return true;
  }
  places.set(client, { script, report });
  if (client.fault === "fails") {
    await tell(client, report, "failed", "the drive gave an error while it was written");
    say("the installation failed");
    return false;
  }
  const { status } = await fetchOnce(script);
  say(status === 200 ? "the first start is prepared" : `no script of the first start (${status})`);
  await tell(client, report, "installed", "");
  return true;
}

async function firstStart(client: Client, { pace }: Walk, say: (words: string) => void): Promise<void> {
  const place = places.get(client);
  if (!place) return;
  await wait((60 * 1000) / pace);
  for (const stage of ["first-boot", "done"]) await tell(client, place.report, stage, "");
  say("the first start is done");
}

/** A report; a program that repeats it has not heard that it arrived. */
async function tell(client: Client, report: string, stage: string, words: string): Promise<void> {
  const times = client.fault === "repeated reports" ? 3 : 1;
  for (let i = 0; i < times; i += 1)
    await fetchOnce(`${report}${stage}`, {
      method: "POST",
      body: new URLSearchParams({ words }).toString(),
    });
}
