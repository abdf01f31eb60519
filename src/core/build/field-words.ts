import type { Zone } from "../finding";

const ZONE_OF: Record<string, Zone> = {
  machine: "A",
  image: "B",
  boot: "C",
  storage: "D",
  network: "E",
  answers: "F",
  handOver: "K",
};

const NAMES: Record<string, string> = {
  "machine.id": "machine",
  "image.id": "image",
  "image.way": "way to the machine",
  "image.road": "road",
  "image.edition": "edition of the profile",
  "image.stick.key": "stick of the register",
  "image.stick.ready": "stick used as it is",
  "boot.start": "how the media starts",
  "storage.target": "target drive",
  "storage.leaveAlone": "drives left alone",
  "storage.free": "drives freed",
  "storage.erase": "agreed to erase",
  "network.school": "kind of address",
  "network.fixedBy": "address fixed by",
  "answers.secretsKept": "where the passwords are kept",
  "handOver.evaluationEnds": "evaluation ends",
  "handOver.notes": "to know at three in the morning",
};

/** A field of the sheet for a person: its zone letter and its name ("E gateway"). */
export function fieldWords(path: string): { zone: Zone | null; name: string } {
  const [first = "", ...rest] = path.split(".");
  const name =
    NAMES[path] ??
    (rest.length > 0 ? rest : [first])
      .join(" ")
      .replace(/([A-Z])/g, " $1")
      .toLowerCase();
  return { zone: ZONE_OF[first] ?? null, name };
}
