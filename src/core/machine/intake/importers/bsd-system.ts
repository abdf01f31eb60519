import { fail, ok, type Result } from "../../../result";
import { own } from "../../../text";
import type { PciDevice } from "../../facts/facts";
import { cleanText, plausibleBytes, plural, wholeNumber, type Importer, type Reading } from "./importer";

const ARCHITECTURES: Record<string, string> = { amd64: "x86_64", arm64: "aarch64" };

/** `sysctl` of some hw. and kern. names: processor and memory. */
export const sysctl: Importer = {
  tool: "sysctl",
  command: "sysctl hw.model hw.ncpu hw.physmem hw.machine_arch kern.smp.cores",
  recognises: (text) => /^hw\.(model|ncpu|physmem|machine_arch): /m.test(text.slice(0, 400)),
  parse(text): Result<Reading> {
    const values = new Map(
      [...text.matchAll(/^([\w.]+): (.*)$/gm)].map(([, key = "", value = ""]) => [key, value] as const),
    );
    const architecture = values.get("hw.machine_arch") ?? "";
    const memory = plausibleBytes(values.get("hw.physmem"));
    const threads = wholeNumber(values.get("hw.ncpu"));
    return ok({
      facts: {
        processors: {
          model: cleanText(values.get("hw.model")),
          architecture: own(ARCHITECTURES, architecture) ?? cleanText(architecture),
          cores: wholeNumber(values.get("kern.smp.cores")),
          threads,
        },
        ...(memory && { memory: { recognisedBytes: memory } }),
      },
      understood: `${cleanText(values.get("hw.model")) ?? "processor not reported"}, ${threads ?? "?"} threads`,
      ignored: [],
    });
  },
};

const HEAD =
  /^(\S+)@pci(\d+):(\d+):(\d+):(\d+):\s+class=0x([0-9a-f]{6}).*?vendor=0x([0-9a-f]{4}) device=0x([0-9a-f]{4})/;
const hex = (text: string, digits: number): string => Number(text).toString(16).padStart(digits, "0");

/** `pciconf -lv`: PCI devices with class, ids, names and driver. */
export const pciconf: Importer = {
  tool: "pciconf",
  command: "pciconf -lv",
  recognises: (text) => /^\S+@pci\d+:\d+:\d+:\d+:\s+class=0x/m.test(text.slice(0, 400)),
  parse(text): Result<Reading> {
    const pci: (Partial<PciDevice> & Pick<PciDevice, "slot">)[] = [];
    for (const line of text.split(/\r?\n/)) {
      const head = HEAD.exec(line);
      if (head) {
        const [, name = "", , bus = "0", device = "0", func = "0", classId = "", vendor = "", id = ""] = head;
        const driver = name.replace(/\d+$/, "");
        pci.push({
          slot: `${hex(bus, 2)}:${hex(device, 2)}.${func}`,
          classId: classId.slice(0, 4),
          ids: `${vendor}:${id}`,
          driver: driver === "none" ? null : driver,
        });
        continue;
      }
      const [, key, word] = /^\s+(vendor|device|class|subclass)\s+= '?([^']*)'?$/.exec(line) ?? [];
      const last = pci.at(-1);
      if (!last || !key) continue;
      if (key === "vendor") last.maker = cleanText(word) ?? undefined;
      if (key === "device") last.device = cleanText(word) ?? undefined;
      if (key === "class" || key === "subclass") last.className = cleanText(word) ?? last.className;
    }
    return pci.length === 0
      ? fail({ message: "pciconf lists no device with its class", line: 1 })
      : ok({
          facts: { pci },
          understood: plural(pci.length, "PCI device"),
          ignored: [],
          complete: { pci: true },
        });
  },
};
