import { ok, type Result } from "../../../result";
import { cleanText, type Importer, type Observed, type Reading } from "./importer";

/** NAME=value lines with the quoting of os-release (which is that of a shell). */
function keyValues(text: string): Map<string, string> {
  const pairs = text.split(/\r?\n/).flatMap((line) => {
    const match = /^([A-Za-z_][A-Za-z0-9_.-]*)=(.*)$/.exec(line.trim());
    return match ? [[match[1] ?? "", (match[2] ?? "").replace(/^(["'])(.*)\1$/, "$2")] as const] : [];
  });
  return new Map(pairs);
}

const kib = (text: string | null): number | null =>
  text !== null && /^\d+$/.test(text) ? Number(text) * 1024 : null;

/** `/etc/os-release`: the system that was running. */
export const osRelease: Importer = {
  tool: "os-release",
  command: "cat /etc/os-release",
  recognises: (text) =>
    /^ID=/m.test(text.slice(0, 4000)) && /^(NAME|VERSION_ID|PRETTY_NAME)=/m.test(text.slice(0, 4000)),
  parse(text): Result<Reading> {
    const values = keyValues(text);
    const system = {
      osId: cleanText(values.get("ID")),
      osName: cleanText(values.get("PRETTY_NAME") ?? values.get("NAME")),
      osVersion: cleanText(values.get("VERSION_ID")),
    };
    return ok({
      facts: { system },
      understood: `running ${system.osName ?? system.osId ?? "an unnamed system"}`,
      ignored: [],
    });
  },
};

/** The collector's own section of single values that no JSON tool prints; every line is name=value. */
export const settings: Importer = {
  tool: "settings",
  command: "(the collector's own list)",
  recognises: (text) => /^collector\.settings=1$/m.test(text.slice(0, 200)),
  parse(text): Result<Reading> {
    const values = keyValues(text);
    const get = (name: string): string | null => cleanText(values.get(name));
    const facts: Observed = {
      system: {
        hostName: get("host.name"),
        kernel: get("kernel"),
        timeZone: get("time.zone"),
        locale: get("locale"),
        keyboard: get("keyboard"),
        rootSource: get("root.source"),
        rootKind: get("root.kind"),
        rootSizeBytes: kib(get("root.size.kib")),
        rootFreeBytes: kib(get("root.free.kib")),
        clockFollows: { yes: true, no: false }[get("time.synchronised") ?? ""] ?? null,
        nameServers: (get("name.servers") ?? "").split(/[ ,]+/).filter(Boolean),
      },
    };
    const mode = get("firmware.mode");
    if (mode === "uefi" || mode === "legacy") facts.firmware = { mode };
    const memoryKiB = Number(get("memory.kib"));
    if (memoryKiB > 0) facts.memory = { recognisedBytes: memoryKiB * 1024 };
    return ok({
      facts,
      understood: `host name ${get("host.name") ?? "not reported"}, ${mode ?? "firmware mode not reported"}, ${get("time.zone") ?? "time zone not reported"}`,
      ignored: [],
    });
  },
};
