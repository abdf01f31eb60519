// The build sheets of the demo, each in the middle of something.
import { valueAt } from "@/core/document";
import { applyEdits, emptySheet, type Sheet } from "@/core/sheet";
import { ARKLE, at, DAY, PELL } from "./parts";
import { wrkSt1 } from "./works";

function sheetWith(values: Record<string, unknown>): Sheet {
  const empty = emptySheet();
  const made = applyEdits(
    empty,
    Object.entries(values).map(([path, after]) => ({ path, before: valueAt(empty, path), after })),
  );
  if (!made.ok) throw new Error(JSON.stringify(made.problems));
  return made.value;
}

const usual = {
  "image.edition": 1,
  "answers.domain": "marrowby.example",
  "answers.keyboard": "gb",
  "answers.locale": "en_GB.UTF-8",
  "answers.timeZone": "Europe/London",
};
const works = {
  ...usual,
  "network.segment": "works-mgmt",
  "network.gateway": "10.61.10.1",
  "network.nameServers": ["10.61.10.2", "10.61.10.3"],
  "boot.menuKey": "F11",
  "image.id": "i-cairn-9",
};
const thornhope = {
  ...usual,
  "network.segment": "tho-lan",
  "network.school": "reserved",
  "network.gateway": "10.61.20.1",
  "network.nameServers": ["10.61.20.1"],
  "boot.menuKey": "F7",
  "image.id": "i-lowland-7",
  "image.way": "stick",
  "image.stick.key": "PBL3-7742",
};
const PELL_KEY = {
  line: "ssh-ed25519 AAAAC3NzaC1lZDI1NTE5AAAAILOIOsYLAkarzjsjhri2Qy9m83me3hcpWifGeDGfgTDM jpell@works",
  until: "2027-05-31",
};
const root = { name: "root", role: "super-user", logIn: "password" };

const hv = (n: 1 | 2, card: string, store: string) => ({
  ...works,
  subject: `Install Cairn Hypervisor 9 on wrk-hv${n}`,
  "machine.id": `m-wrk-hv${n}`,
  "boot.secureBoot": "off",
  "storage.target": card,
  "storage.leaveAlone": [store],
  "network.port": `02:61:0a:00:1${n + 3}:01`,
  "answers.hostName": `wrk-hv${n}`,
  "answers.accounts": [root],
  "answers.secretsKept": "Works safe, envelope 14",
  "handOver.owner": "Control room",
  "handOver.licence": "evaluation",
  "handOver.evaluationEnds": "2027-01-23",
});

export const hv1 = sheetWith({
  ...hv(1, "BM4471907F31", "R5D9A00514"),
  "network.address": "10.61.10.21",
  "boot.cards": {
    ...{ name: "BOOTCARD-A", primary: "card 1", removable: "no" },
    readings: [{ at: at(12), percent: 56 }],
  },
  "storage.erase": [
    { drive: "BM4471907F31", typed: "907F31", holds: 'vfat "BOOT", vfat "CAIRN6"', by: ARKLE, at: at(300) },
  ],
  "handOver.notes":
    "The old system is not trusted since a card failed in spring, so the installation is fresh. Version 9 cannot be installed fresh on the boot card of this model, so 6.7 is installed first. Register the guests of store-14 again afterwards.",
  waivers: [
    {
      key: "storage.removable",
      reason: "two cards are mirrored in the module, and a copy of the configuration is in envelope 14",
      by: ARKLE,
      at: at(290),
    },
  ],
});
export const hv2 = sheetWith({
  ...hv(2, "BM4471907F58", "R5D9A00515"),
  "network.address": "10.61.10.122",
  "network.carrier": "switch0",
  "network.interfaces": [
    {
      ...{ kind: "virtual switch", name: "switch0", segment: null, address: "", mtu: 9000 },
      on: ["02:61:0a:00:15:01", "02:61:0a:00:15:02"],
      groups: [
        { name: "Management", purpose: "management", segment: "works-mgmt" },
        { name: "Moves of guests", purpose: "moves of guests", segment: "works-store" },
        { name: "Control guests", purpose: "guests", segment: "works-guests" },
      ],
    },
  ],
  "handOver.evaluationEnds": null,
});
/** The host of the telemetry database installs itself over the network; it waits to be armed. */
export const tm1 = sheetWith({
  ...works,
  subject: "Install Lowland Server 7 on wrk-tm1",
  "machine.id": "m-wrk-tm1",
  "image.id": "i-lowland-7",
  "image.way": "network",
  "storage.target": "SLW9600004",
  "storage.layout": "mirror",
  "storage.partners": [{ drive: "SLW9600014", role: "member" }],
  "network.port": "02:61:0a:00:21:01",
  "network.address": "10.61.10.40",
  "answers.hostName": "wrk-tm1",
  "answers.accounts": [
    { ...root, logIn: "none" },
    { name: "jpell", role: "administrator", logIn: "key", keys: [PELL_KEY] },
  ],
  "answers.secretsKept": "Works safe, envelope 14",
  "answers.firstStart": [
    "install -d -m 755 /etc/marrowby",
    "echo {parameter.collector} > /etc/marrowby/collector",
  ],
  "handOver.owner": "Control room",
});
export const thoA = sheetWith({
  ...thornhope,
  subject: "Install Lowland Server 7 on tho-a",
  "machine.id": "m-tho-a",
  "storage.target": "SLW5129931",
  "network.port": "02:61:14:00:00:01",
  "network.address": "10.61.20.11",
  "image.stick.written": "legacy",
  "answers.hostName": "tho-a",
  "answers.accounts": [
    { ...root, logIn: "none" },
    { name: "jpell", role: "administrator", logIn: "password" },
  ],
  "answers.secretsKept": "Thornhope cabinet, sealed card",
  "handOver.owner": "Pump crew",
});
export const thoB = sheetWith({
  ...thornhope,
  subject: "Install Lowland Server 7 on tho-b",
  "machine.id": "m-tho-b",
  "storage.target": "SLW5129944",
  "network.port": "02:61:14:00:00:02",
  "network.address": "10.61.20.12",
  "image.stick.written": "uefi",
  "answers.hostName": "tho-b",
  "answers.accounts": [
    { ...root, logIn: "none" },
    { name: "jpell", role: "administrator", logIn: "password" },
  ],
  "answers.secretsKept": "Thornhope cabinet, sealed card",
  "handOver.owner": "Pump crew",
});

/** The legacy appliance keeps its pools: converted in place, by the update file. */
export const st1 = sheetWith({
  ...works,
  subject: "Convert wrk-st1 to Cistern NAS 13",
  "machine.id": "m-wrk-st1",
  "image.id": "i-cistern-13",
  "image.road": "convert",
  "boot.secureBoot": "off",
  "storage.target": "ALD240A7710",
  "storage.leaveAlone": wrkSt1.facts.drives.map((d) => d.id).filter((id) => id !== "ALD240A7710"),
  "network.port": wrkSt1.facts.ports[0]?.mac ?? null,
  "network.address": "10.61.10.30",
  "network.interfaces": [
    {
      ...{ kind: "port", name: "store0", on: [wrkSt1.facts.ports[1]?.mac ?? ""], segment: "works-store" },
      ...{ address: "10.61.11.30", mtu: 9000 },
    },
  ],
  "answers.hostName": "wrk-st1",
  "answers.accounts": [root, { name: "marnold", role: "administrator", logIn: "password" }],
  "answers.secretsKept": "Works safe, envelope 15",
  "handOver.owner": "Control room",
});

/** The old desktop at the office: handed over a month ago. */
export const bk1 = sheetWith({
  ...usual,
  subject: "Install Hopper Backup 3 on cl-bk1",
  "machine.id": "m-cl-bk1",
  "image.id": "i-hopper-3",
  "image.way": "stick",
  "image.stick.key": "PBL3-7751",
  "boot.mode": "legacy",
  "boot.menuKey": "F12",
  "storage.target": "CDB4T00931",
  "storage.erase": [
    { drive: "CDB4T00931", typed: "T00931", holds: 'ntfs "Office"', by: PELL, at: at(32 * DAY) },
  ],
  "network.port": "02:61:1e:00:00:01",
  "network.segment": "cl-lan",
  "network.address": "10.61.30.12",
  "network.gateway": "10.61.30.1",
  "network.nameServers": ["10.61.30.1"],
  "answers.hostName": "cl-bk1",
  "answers.accounts": [
    { ...root, logIn: "none" },
    { name: "jpell", role: "administrator", logIn: "password" },
  ],
  "answers.secretsKept": "Cold Lane, key cupboard",
  "handOver.owner": "Office",
  "handOver.notes":
    "The root volume has a quarter of the disk and can be extended; the catalogue will need it within a year.",
});
