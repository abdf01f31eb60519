import { addressSortKey, boundKeysOf, readNetworkText } from "../../network";
import { BOOT_CLIENTS } from "./clients";
import { readBootConfig, type BootReading, type Given } from "./read";

/** What is wrong with the configuration of a DHCP server, by its number among those that were given and its line. */
export interface BootProblem {
  severity: "stop" | "caution";
  text: number;
  line: number | null;
  says: string;
  remedy: string;
}

/** For which machines a boot file is a program, as its usual name tells; null where it does not. */
function codesOf(file: string): number[] | null {
  const name = file.split("?")[0]!.split("/").at(-1)!.toLowerCase();
  if (/\.(kpxe|pxe|kkpxe|0)$/.test(name)) return [0];
  if (!/\.efi(\.signed)?$/.test(name)) return null;
  // One name may stand in several folders, which then tell what it is for.
  if (/arm64|aa64/.test(file.toLowerCase())) return [11, 19];
  if (/i386|ia32/.test(file.toLowerCase())) return [6, 15];
  return /x64|x86_64|snponly|ipxe|grub|shim/.test(name) ? [7, 9, 16] : null;
}

const HTTP = [15, 16, 18, 19];
const clientWords = (code: number): string =>
  BOOT_CLIENTS.find((c) => c.codes.includes(code))?.words ?? "firmware of another type";
const isScript = (file: string): boolean => /^https?:\/\/.*\.(ipxe|php|cfg)(\?|$)/i.test(file);

type Said = Omit<BootProblem, "text">;

function problemsOf({ line, codes, file, toIpxe }: Given, script: string): Said[] {
  const fit = codesOf(file);
  const isUrl = /^https?:\/\//i.test(file);
  const said: Said[] = [];
  const say = (severity: Said["severity"], says: string, remedy: string): void =>
    void said.push({ severity, line, says, remedy });
  for (const code of codes) {
    if (fit && !fit.includes(code))
      say(
        "stop",
        `A ${clientWords(code)} (architecture ${code}) gets ${file}, which is a program for another type: ${fit.map(clientWords)[0]}.`,
        `Assign ${BOOT_CLIENTS.find((c) => c.codes.includes(code))?.file ?? "a loader of its own"}.`,
      );
    else if (HTTP.includes(code) && !isUrl)
      say(
        "stop",
        `Firmware that uses HTTP boot (architecture ${code}) gets ${file}, which is not a URL.`,
        "Assign the whole URL, beginning with http://.",
      );
    else if (!HTTP.includes(code) && isUrl && toIpxe !== true)
      say(
        "stop",
        `Firmware that uses TFTP (architecture ${code}) gets a URL (${file}), which it cannot load.`,
        "Assign the name of a file on the TFTP server.",
      );
  }
  if (codes.length === 0 && fit && toIpxe !== true)
    say(
      "caution",
      `All clients get ${file}, a program for a ${clientWords(fit[0] ?? 0)} only.`,
      "Match the architecture (option 93), and assign each its own loader.",
    );
  if (toIpxe === true && file !== script)
    say("caution", `iPXE gets ${file} instead of the boot script of Derrick.`, `Assign ${script}.`);
  return said;
}

function loops({ given, knowsIpxe }: BootReading): Said[] {
  const loader = given.find(({ file }) => /ipxe|undionly|snponly/i.test(file) && !isScript(file));
  return loader && !knowsIpxe
    ? [
        {
          ...{ severity: "stop", line: loader.line },
          says: `${loader.file} is iPXE, and the configuration does not distinguish requests of iPXE: it loads itself in a loop.`,
          remedy: "Match iPXE first (option 175, or user class iPXE), and assign the script.",
        },
      ]
    : [];
}

/** Reservations that lie in a range of the same server: what it hands out there is refused by the one that it is kept for. */
function reservedInRange(text: string, format: BootReading["format"]): Said[] {
  // A dnsmasq never hands out what it keeps for somebody.
  const read = format === "dnsmasq" ? null : readNetworkText(text);
  if (!read?.ok) return [];
  const { rows } = read.value;
  const key = (address: string): string => addressSortKey(address) ?? "";
  return rows.flatMap((row): Said[] => {
    if (row.kind !== "reservation") return [];
    const at = key(row.address);
    const range = rows.find((r) => r.kind === "range" && key(r.from) <= at && at <= key(r.to));
    return range?.kind === "range"
      ? [
          {
            ...{ severity: "caution", line: row.line },
            says: `${row.address} is reserved for ${row.name || row.mac}, and in the range ${range.from} to ${range.to}: it may already be leased to another machine.`,
            remedy: "Exclude it from the range, or reserve an address outside the range.",
          },
        ]
      : [];
  });
}

/** Networks in which more than one of the servers gives out addresses, by their prefixes. */
function twoServers(
  texts: readonly string[],
  readings: readonly (BootReading | null)[],
  prefixes: readonly string[],
): BootProblem[] {
  const ranges = texts.map((text, i) => {
    const read = readings[i]?.givesAddresses ? readNetworkText(text) : null;
    return read?.ok ? read.value.rows.flatMap((r) => (r.kind === "range" ? [r] : [])) : [];
  });
  return prefixes.flatMap((prefix) => {
    const bounds = boundKeysOf(prefix);
    const inside = ranges.map((own) =>
      own.find(({ from }) => {
        const key = addressSortKey(from) ?? "";
        return bounds !== null && bounds.first <= key && key <= bounds.last;
      }),
    );
    const [first, second] = inside.flatMap((range, text) => (range ? [{ range, text }] : []));
    return first && second
      ? [
          {
            ...{ severity: "stop" as const, text: second.text, line: second.range.line },
            says: `Two servers assign addresses of ${prefix}: number ${first.text + 1} from ${first.range.from}, and number ${second.text + 1} from ${second.range.from}. A machine uses the first response.`,
            remedy:
              "Turn one of them off; if the other one is not yours, use dnsmasq as a second server (proxy DHCP).",
          },
        ]
      : [];
  });
}

/** What is wrong with the configurations of DHCP servers, as far as machines start over the network by them. */
export function judgeBootConfigs(
  texts: readonly string[],
  { script, prefixes }: { script: string; prefixes: readonly string[] },
): BootProblem[] {
  const readings = texts.map(readBootConfig);
  const each = readings.flatMap((reading, text): BootProblem[] => {
    if (!reading)
      return [
        {
          ...{ severity: "caution", text, line: null },
          says: "Unknown format (supported: dnsmasq, Kea, ISC syntax): not checked.",
          remedy: "Paste the file as the server reads it.",
        },
      ];
    const nothing: Said[] =
      reading.given.length === 0
        ? [
            {
              ...{ severity: "caution", line: null },
              says: "It assigns no boot file: machines cannot boot from the network.",
              remedy: "Add the lines shown above for this program.",
            },
          ]
        : [];
    const said = [
      ...reading.given.flatMap((given) => problemsOf(given, script)),
      ...loops(reading),
      ...reservedInRange(texts[text] ?? "", reading.format),
      ...nothing,
    ];
    return said.map((one) => ({ ...one, text }));
  });
  return [...each, ...twoServers(texts, readings, prefixes)];
}
