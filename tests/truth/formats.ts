import { existsSync, readdirSync, readFileSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { z } from "zod";
import { emptyMachine, mergeReadings, readTexts, type Facts } from "@/core/machine";
import type { Compared, TruthReader } from "./reader";

// The outputs of a machine's tools hold no answers beside them: what one tool says is read here a second time, in the
// plainest way, and compared with the facts that Derrick made of all of them together.

const AT = "2026-11-24T08:00:00.000Z";

const text = z.string().nullish();
const blockSchema = z.object({
  name: z.string(),
  type: z.string(),
  size: z.coerce.number(),
  serial: text,
  wwn: text,
  rota: z.coerce.boolean(),
  "log-sec": z.coerce.number(),
  "phy-sec": z.coerce.number(),
});
const lsblkSchema = z.object({ blockdevices: z.array(blockSchema) });
const smartSchema = z.object({
  serial_number: z.string().optional(),
  user_capacity: z.object({ bytes: z.number() }).optional(),
  power_on_time: z.object({ hours: z.number() }).optional(),
});
const linkSchema = z.object({
  link_type: z.string().optional(),
  address: z.string().optional(),
  permaddr: z.string().optional(),
  parentbus: z.string().optional(),
});
const lscpuSchema = z.object({
  lscpu: z.array(z.object({ field: z.string(), data: z.string().nullable() }).loose()),
});

const json = (path: string): unknown => JSON.parse(readFileSync(path, "utf8")) as unknown;

/** Drives as `lsblk -J -b -O` lists them; those that the kernel makes itself (loop, ram, zvol) are none. */
function* drives(folder: string, facts: Facts): Generator<Compared> {
  const disks = lsblkSchema
    .parse(json(join(folder, "lsblk.json")))
    .blockdevices.filter((d) => d.type === "disk" && !/^(zd|loop|ram|zram|nbd|sr)\d/.test(d.name));
  yield { what: "number of drives", measured: disks.length, derrick: facts.drives.length };
  for (const disk of disks) {
    const drive = facts.drives.find((d) => d.seenAs === disk.name);
    const of = `drive ${disk.name}`;
    yield { what: `${of}, bytes`, measured: disk.size, derrick: drive?.sizeBytes };
    yield { what: `${of}, serial`, measured: disk.serial?.trim() || null, derrick: drive?.serial };
    yield {
      what: `${of}, sectors`,
      measured: [disk["log-sec"], disk["phy-sec"]],
      derrick: [drive?.logicalSectorBytes, drive?.physicalSectorBytes],
    };
  }
}

/** Size and hours as smartctl gives them, by serial. */
function* health(folder: string, facts: Facts): Generator<Compared> {
  for (const { name, serial_number, user_capacity, power_on_time } of smartOutputs(folder)) {
    if (serial_number === undefined) continue;
    const drive = facts.drives.find((d) => d.serial === serial_number);
    yield { what: `${name}, is a drive of the machine`, measured: true, derrick: drive !== undefined };
    if (user_capacity)
      yield { what: `${name}, bytes`, measured: user_capacity.bytes, derrick: drive?.sizeBytes };
    if (power_on_time)
      yield { what: `${name}, hours`, measured: power_on_time.hours, derrick: drive?.health?.hours };
  }
}

const smartOutputs = (folder: string) =>
  readdirSync(folder)
    .filter((f) => /^smartctl-.*\.json$/.test(f))
    .map((name) => ({ name, ...smartSchema.parse(json(join(folder, name))) }));

/** Ports that hang on a bus, by the address that is burnt in. */
function* ports(folder: string, facts: Facts): Generator<Compared> {
  const links = z.array(linkSchema).parse(json(join(folder, "ip-link-d.json")));
  const own = links.filter((l) => l.link_type === "ether" && l.parentbus !== undefined);
  yield {
    what: "MAC addresses of the ports",
    measured: own.map((l) => l.permaddr ?? l.address).sort(),
    derrick: facts.ports.map((p) => p.mac).sort(),
  };
}

function* processors(folder: string, facts: Facts): Generator<Compared> {
  const lines = lscpuSchema.parse(json(join(folder, "lscpu.json"))).lscpu;
  const field = (name: string) => lines.find((l) => l.field === `${name}:`)?.data ?? null;
  const [sockets, perSocket] = [Number(field("Socket(s)")), Number(field("Core(s) per socket"))];
  yield {
    what: "sockets, cores and threads",
    measured: [sockets, sockets * perSocket, Number(field("CPU(s)"))],
    derrick: [facts.processors?.sockets, facts.processors?.cores, facts.processors?.threads],
  };
  yield {
    what: "architecture",
    measured: field("Architecture"),
    derrick: facts.processors?.architecture,
  };
}

const PARTS: Record<string, (folder: string, facts: Facts) => Iterable<Compared>> = {
  "lsblk.json": drives,
  "ip-link-d.json": ports,
  "lscpu.json": processors,
};

/** Outputs from before the disks were partitioned, and shorter forms of those beside them. */
const OTHERS = /blank|default|\.py$|^README/;

/** A folder of tool outputs of one machine. */
export const machineReader: TruthReader = {
  name: "outputs of a machine's tools",
  reads: (path) => basename(path) === "lsblk.json",
  *compare(path) {
    const folder = dirname(path);
    const texts = readdirSync(folder, { withFileTypes: true })
      .filter((f) => f.isFile() && !OTHERS.test(f.name))
      .map(({ name }) => ({ name, text: readFileSync(join(folder, name), "utf8") }));
    const intake = readTexts(texts);
    const { facts } = mergeReadings(emptyMachine(), intake.readings, AT).document;
    const refused = intake.rejected.filter((r) => r.tool !== null).map((r) => r.from);
    // smartctl says itself when it reached no drive, and its list of devices is about none.
    const aboutNone = smartOutputs(folder).filter((s) => s.serial_number === undefined);
    yield {
      what: "outputs of known tools that were refused",
      measured: aboutNone.map((s) => s.name),
      derrick: refused.sort(),
    };
    for (const [name, compare] of Object.entries(PARTS))
      if (existsSync(join(folder, name))) yield* compare(folder, facts);
    yield* health(folder, facts);
  },
};

/** What the firmware will try, as efibootmgr prints it. */
export const efiReader: TruthReader = {
  name: "boot entries",
  reads: (path) => /^efibootmgr-v.*\.txt$/.test(basename(path)),
  *compare(path) {
    const output = readFileSync(path, "utf8");
    const { readings } = readTexts([{ name: basename(path), text: output }]);
    const { firmware } = mergeReadings(emptyMachine(), readings, AT).document.facts;
    const legacy = /EFI variables are not supported/.test(output);
    yield { what: "how it started", measured: legacy ? "legacy" : "uefi", derrick: firmware?.mode };
    if (legacy) return;
    const header = (name: string) => new RegExp(`^${name}: (.*)$`, "m").exec(output)?.[1] ?? null;
    yield { what: "current entry", measured: header("BootCurrent"), derrick: firmware?.currentEntry };
    yield { what: "next entry", measured: header("BootNext"), derrick: firmware?.nextEntry };
    yield { what: "order", measured: header("BootOrder")?.split(",") ?? [], derrick: firmware?.order };
    yield {
      what: "entries, and which of them are active",
      measured: [...output.matchAll(/^Boot([0-9A-F]{4})([* ]) /gm)].map((m) => [m[1], m[2] === "*"]),
      derrick: firmware?.entries?.map((e) => [e.id, e.active]),
    };
  },
};
