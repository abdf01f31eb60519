import { PROVISIONS, type PlannedSet, type PlannedVolume, type SetView } from "@/core/storage";
import { formatBinaryBytes, formatBytes, parseByteSize } from "@/core/units";
import { Field, ParsedField, SelectField, TextField } from "../fields/fields";

const UNITS = ["TiB", "TB", "GiB", "GB", "MiB", "MB"] as const;
const BYTES = { TiB: 2 ** 40, TB: 1e12, GiB: 2 ** 30, GB: 1e9, MiB: 2 ** 20, MB: 1e6 } as const;

/** In the largest unit of which it is a whole number, so that what was typed is what stands there. */
function exactWords(bytes: number): string {
  const unit = UNITS.find((u) => bytes % BYTES[u] === 0);
  return unit ? `${bytes / BYTES[unit]} ${unit}` : `${bytes} B`;
}

const size = {
  format: (bytes: number | null): string => (bytes === null ? "" : exactWords(bytes)),
  parse(text: string): { value: number | null } | { problem: string } {
    if (text.trim() === "") return { value: null };
    const parsed = parseByteSize(text);
    if (!parsed.ok) return { problem: parsed.problems[0]!.message };
    return parsed.value > 0 ? { value: parsed.value } : { problem: "at least 1 byte" };
  },
};

const FILE_SYSTEMS = [
  { value: "none", text: "nothing" },
  { value: "ext4", text: "ext4" },
  { value: "xfs", text: "XFS" },
  { value: "btrfs", text: "Btrfs" },
] as const;
const BLOCKS = ([4, 8, 16, 32, 64, 128] as const).map((n) => ({ value: String(n), text: `${n} KiB` }));
const WAYS = PROVISIONS.map((value) => ({ value, text: value }));

/** One more, with a name that none of them has. */
function another(volumes: readonly PlannedVolume[]): PlannedVolume {
  let n = volumes.length + 1;
  while (volumes.some((v) => v.name === `vol${n}`)) n += 1;
  return { name: `vol${n}`, bytes: null, fs: "none", blockKib: 16 };
}

interface Props {
  set: PlannedSet;
  shown: SetView["volumes"];
  put: (set: PlannedSet) => void;
}

/** What is made on a set: volumes and file systems of a pool, logical volumes of an array, against the room for them. */
export function SetVolumes({ set, shown, put }: Props) {
  const { volumes } = set;
  const write = (i: number, part: Partial<PlannedVolume>): void =>
    put({ ...set, volumes: volumes.map((v, k) => (k === i ? { ...v, ...part } : v)) });
  return (
    <Field path={`storage.sets.${set.id}.volumes`} label="Volumes">
      {volumes.map((volume, i) => (
        <OneVolume
          key={i}
          {...{ set, volume, at: i }}
          figures={shown?.volumes[i] ?? null}
          write={(part) => write(i, part)}
          remove={() => put({ ...set, volumes: volumes.filter((_, k) => k !== i) })}
        />
      ))}
      {volumes.length > 0 && (
        <div className="mb-1 grid items-end gap-x-4 sm:grid-cols-[10rem_minmax(0,1fr)]">
          <SelectField
            {...{ path: `storage.sets.${set.id}.provision`, label: "Space", value: set.provision }}
            options={WAYS}
            onChange={(provision) => put({ ...set, provision })}
          />
          {shown && <Room shown={shown} isThin={set.provision === "thin"} />}
        </div>
      )}
      <button
        type="button"
        className="link"
        onClick={() => put({ ...set, volumes: [...volumes, another(volumes)] })}
      >
        {set.keeper === "ZFS" ? "Add a volume or file system" : "Add a logical volume"}
      </button>
    </Field>
  );
}

interface VolumeProps {
  set: PlannedSet;
  volume: PlannedVolume;
  at: number;
  figures: NonNullable<SetView["volumes"]>["volumes"][number] | null;
  write: (part: Partial<PlannedVolume>) => void;
  remove: () => void;
}

function OneVolume({ set, volume, at, figures, write, remove }: VolumeProps) {
  const path = (field: string): string => `storage.sets.${set.id}.volumes.${at}.${field}`;
  const isPool = set.keeper === "ZFS";
  const nth = `of volume ${at + 1}`;
  return (
    <div className="mb-2 grid items-end gap-x-4 gap-y-1 sm:grid-cols-[10rem_9rem_10rem_minmax(0,1fr)]">
      <TextField
        {...{ path: path("name"), label: `Name ${nth}`, value: volume.name, maxLength: 60 }}
        onChange={(name) => write({ name })}
      />
      <ParsedField
        {...{ path: path("bytes"), label: `Size ${nth}`, value: volume.bytes, ...size }}
        placeholder={isPool ? "a file system" : "all remaining space"}
        onChange={(bytes) => write({ bytes })}
      />
      {!isPool ? (
        <SelectField
          {...{ path: path("fs"), label: `Contents ${nth}`, value: volume.fs, options: FILE_SYSTEMS }}
          onChange={(fs) => write({ fs })}
        />
      ) : volume.bytes !== null ? (
        <SelectField
          {...{ path: path("blockKib"), label: `Block size ${nth}`, options: BLOCKS }}
          value={String(volume.blockKib)}
          onChange={(block) => write({ blockKib: Number(block) as PlannedVolume["blockKib"] })}
        />
      ) : (
        <span />
      )}
      <p className="pb-1 text-[0.92rem]">
        {figures && <Takes {...figures} />}{" "}
        <button type="button" className="link" aria-label={`Remove volume ${at + 1}`} onClick={remove}>
          Remove
        </button>
      </p>
    </div>
  );
}

/** What a volume takes at once, and what will be seen of it. */
const Takes = ({ promisedBytes, takesBytes, dfBytes }: NonNullable<VolumeProps["figures"]>) => (
  <span className="quiet">
    {[
      promisedBytes === null
        ? "uses what is in it"
        : takesBytes > 0
          ? `uses ${formatBytes(takesBytes)}`
          : `provisions ${formatBytes(promisedBytes)}, uses what is written`,
      ...(dfBytes === null ? [] : [`df shows ${formatBinaryBytes(dfBytes)}`]),
    ].join("; ")}
  </span>
);

/** All of them against what there is. */
const Room = ({ shown, isThin }: { shown: NonNullable<SetView["volumes"]>; isThin: boolean }) => (
  <p className={`mb-1 ${shown.fault ? "text-error" : ""}`}>
    {isThin
      ? `Provisioned: ${formatBytes(shown.promisedBytes)} of ${formatBytes(shown.roomBytes)}`
      : `Used: ${formatBytes(shown.takenBytes)} of ${formatBytes(shown.roomBytes)}`}
    {shown.thin &&
      `; chunks of ${formatBinaryBytes(shown.thin.chunk)}, metadata 2 × ${formatBinaryBytes(shown.thin.metadata)}, of which a full pool needs ${formatBinaryBytes(shown.thin.needs)}`}
    {shown.fault && `: ${shown.fault}`}.
  </p>
);
