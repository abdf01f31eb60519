import { fail, ok, type Result } from "../../../result";
import { parseByteSize } from "../../../units";
import { cleanPlace, cleanText, cutOff, type Importer, type Reading } from "./importer";

interface Structure {
  type: number;
  fields: Map<string, string>;
}

/** Splits dmidecode's text into its structures: a "Handle ..., DMI type N" line, a title, indented "Name: value" lines. */
function structuresOf(text: string): Structure[] {
  const structures: Structure[] = [];
  for (const line of text.split(/\r?\n/)) {
    const handle = /^Handle 0x[0-9A-F]+, DMI type (\d+),/i.exec(line);
    if (handle) structures.push({ type: Number(handle[1]), fields: new Map() });
    const current = structures.at(-1);
    const colon = /^\s/.test(line) ? line.indexOf(":") : -1;
    const name = line.slice(0, Math.max(colon, 0)).trim();
    if (name !== "" && current && !current.fields.has(name))
      current.fields.set(name, line.slice(colon + 1).trim());
  }
  return structures;
}

/** dmidecode writes "4 GB" and "4096 MB" and means powers of 1024. */
function moduleBytes(value: string | undefined): number {
  const size = parseByteSize((value ?? "").replace(/\b([kMGT])B\b/, "$1iB"));
  return size.ok ? size.value : 0;
}

/** Slots (type 9) and onboard devices (type 41) with the PCI place that is in them. */
const placesOf = (all: Structure[]): { slot: string; place: string }[] =>
  all.flatMap(({ type, fields }) => {
    if (type !== 9 && type !== 41) return [];
    const address = cleanText(fields.get("Bus Address"))?.replace(/^0000:/, "");
    const place = cleanPlace(fields.get(type === 9 ? "Designation" : "Reference Designation"));
    return address && place && address !== "00:00.0" ? [{ slot: address, place }] : [];
  });

/** Power supplies (type 39); "2000 W" is what it may give at most. */
const suppliesOf = (
  all: Structure[],
): { id: string; model: string | null; ratedWatts: number | null; state: string }[] =>
  all.flatMap(({ type, fields }, i) => {
    if (type !== 39 || /Not Present/i.test(fields.get("Status") ?? "")) return [];
    const watts = /^(\d+) W/.exec(fields.get("Max Power Capacity") ?? "")?.[1];
    return [
      {
        id: cleanText(fields.get("Name") ?? fields.get("Location")) ?? `supply ${i}`,
        model: cleanText(fields.get("Model Part Number")),
        ratedWatts: watts ? Number(watts) : null,
        state: cleanText(fields.get("Status")) ?? "not reported",
      },
    ];
  });

const END = /^\s*End Of Table\s*$/m;
const END_WORDS = 'its last line "End Of Table"';

/** `dmidecode` as root: chassis, firmware, memory modules, and whether there is a management controller. */
export const dmidecode: Importer = {
  tool: "dmidecode",
  command: "dmidecode",
  recognises: (text) =>
    /^# dmidecode \d/m.test(text.slice(0, 400)) || /^Handle 0x[0-9A-F]+, DMI type/m.test(text.slice(0, 2000)),
  hasEnd: (text) => END.test(text),
  parse(text): Result<Reading> {
    // With -t the tool prints some structures only, and neither the place of the table nor its end.
    if (/^Table at 0x|structures occupying/m.test(text.slice(0, 1000)) && !END.test(text))
      return fail(cutOff(text, END_WORDS));
    const all = structuresOf(text);
    if (all.length === 0)
      return fail({
        message: /permission denied|can't read/i.test(text)
          ? "dmidecode was not allowed to read the tables; run it as root"
          : "the output of dmidecode has no structures; it may be truncated, or the firmware has no SMBIOS tables",
        line: 1,
      });
    const first = (type: number): Map<string, string> | undefined => all.find((s) => s.type === type)?.fields;
    const get = (type: number, name: string): string | null => cleanText(first(type)?.get(name));
    const modules = all
      .filter((s) => s.type === 17)
      .map((s) => ({
        slot: cleanText(s.fields.get("Locator")) ?? "slot not reported",
        sizeBytes: moduleBytes(s.fields.get("Size")),
        kind: cleanText(s.fields.get("Type")),
        part: cleanText(s.fields.get("Part Number")),
        megatransfers: Number(/^(\d+) ?(MT\/s|MHz)/.exec(s.fields.get("Speed") ?? "")?.[1] ?? "") || null,
      }));
    const pci = placesOf(all);
    const supplies = suppliesOf(all);
    const height = /^(\d+) ?U/.exec(first(3)?.get("Height") ?? "");
    const installedBytes = modules.reduce((sum, m) => sum + m.sizeBytes, 0);
    return ok({
      facts: {
        chassis: {
          maker: get(1, "Manufacturer"),
          model: get(1, "Product Name"),
          serial: get(1, "Serial Number"),
          uuid: get(1, "UUID"),
          assetTag: get(3, "Asset Tag"),
          form: get(3, "Type"),
          rackUnits: height ? Number(height[1]) : null,
        },
        firmware: {
          maker: get(0, "Vendor"),
          version: get(0, "Version"),
          releaseDate: get(0, "Release Date"),
        },
        ...(modules.length > 0 && {
          memory: { installedBytes, errorCorrection: get(16, "Error Correction Type"), modules },
        }),
        // Type 38 describes the management interface; its absence proves nothing.
        ...(first(38) && { controller: { present: true, kind: get(38, "Interface Type") } }),
        ...(pci.length > 0 && { pci }),
        ...(supplies.length > 0 && { powerSupplies: supplies }),
      },
      understood: `chassis, firmware and ${modules.length} memory ${modules.length === 1 ? "slot" : "slots"} from ${all.length} structures`,
      ignored: [
        ...new Set(
          all
            .filter((s) => ![0, 1, 3, 9, 16, 17, 38, 39, 41, 127].includes(s.type))
            .map((s) => `type ${s.type}`),
        ),
      ],
    });
  },
};
