import { sql } from "drizzle-orm";
import {
  blob,
  customType,
  index,
  integer,
  primaryKey,
  real,
  sqliteTable,
  text,
  unique,
  uniqueIndex,
} from "drizzle-orm/sqlite-core";
import { BrokenJson, StoredText } from "./document";

/** A JSON column. What is no JSON (a disk's doing, or a hand's) is carried as such, so that it spoils only its own row. */
const json = customType<{ data: unknown; driverData: string }>({
  dataType: () => "text",
  toDriver: (value) => JSON.stringify(value),
  fromDriver: (text) => {
    try {
      return JSON.parse(text) as unknown;
    } catch {
      return new BrokenJson(text);
    }
  },
});

/** The column of a document, which db/documents.ts reads by its definition. */
const document = customType<{ data: unknown; driverData: string }>({
  dataType: () => "text",
  toDriver: (value) => JSON.stringify(value),
  fromDriver: (text) => new StoredText(text),
});

// Columns for identity, references and what is searched; one validated JSON document for the rest.
// `version` counts saves of a row: a save names the version that it was based on. Documents stand last: what stands
// behind a long value costs SQLite a walk through all its pages, which took most of the time of every list.

export const sites = sqliteTable("sites", {
  id: text("id").primaryKey(),
  name: text("name").notNull(),
  document: document("document").notNull(),
  version: integer("version").notNull().default(1),
  updatedAt: text("updated_at").notNull(),
});

export const machines = sqliteTable(
  "machines",
  {
    id: text("id").primaryKey(),
    siteId: text("site_id")
      .notNull()
      .references(() => sites.id),
    name: text("name").notNull(),
    serial: text("serial"),
    /** What the list of machines shows, so that it need not read documents. */
    summary: json("summary").notNull(),
    version: integer("version").notNull().default(1),
    updatedAt: text("updated_at").notNull(),
    document: document("document").notNull(),
  },
  (t) => [unique("machines_name").on(t.siteId, t.name), index("machines_serial").on(t.serial)],
);

/** What machines and sheets hold in the world, found by what it is. It follows from the documents and can be made anew. */
export const claims = sqliteTable(
  "claims",
  {
    kind: text("kind").notNull(),
    key: text("key").notNull(),
    owner: text("owner").notNull(),
    ownerId: text("owner_id").notNull(),
  },
  (t) => [
    primaryKey({ columns: [t.owner, t.ownerId, t.kind, t.key] }),
    // Wide enough to answer what is looked for without the table itself.
    index("claims_key").on(t.kind, t.key, t.owner, t.ownerId),
  ],
);

/**
 * One row for each write of a document: the history of all of them, who did what, and the source of the stream that pages
 * listen to. Rows are added, never changed; the number is the order.
 */
export const changes = sqliteTable(
  "changes",
  {
    seq: integer("seq").primaryKey({ autoIncrement: true }),
    at: text("at").notNull(),
    by: text("by").notNull(),
    kind: text("kind").notNull(),
    id: text("id").notNull(),
    /** The version that the write made; for a run, the number of its last event. */
    version: integer("version").notNull(),
    /** The fields that differ, with their values before and after. */
    edits: json("edits").notNull(),
  },
  (t) => [index("changes_of").on(t.kind, t.id, t.seq)],
);

/** The versions of what follows from documents, so that it is made anew when a later Derrick makes it otherwise. */
export const projections = sqliteTable("projections", {
  name: text("name").primaryKey(),
  version: integer("version").notNull(),
});

/** The raw texts of every import, so that a later importer can read them again. */
export const machineImports = sqliteTable(
  "machine_imports",
  {
    id: text("id").primaryKey(),
    machineId: text("machine_id")
      .notNull()
      .references(() => machines.id, { onDelete: "cascade" }),
    at: text("at").notNull(),
    by: text("by").notNull(),
    texts: json("texts").notNull(),
    changes: json("changes").notNull(),
  },
  (t) => [index("machine_imports_machine").on(t.machineId, t.at)],
);

/** One-time codes of the collector; only a hash is kept. */
export const collectorCodes = sqliteTable("collector_codes", {
  hash: text("hash").primaryKey(),
  machineId: text("machine_id")
    .notNull()
    .references(() => machines.id, { onDelete: "cascade" }),
  expiresAt: text("expires_at").notNull(),
  usedAt: text("used_at"),
  /** The bundle that came in with the code, waiting to be looked at and taken over. */
  bundle: text("bundle"),
  receivedAt: text("received_at"),
});

/** Drives, sticks and cards by serial or WWN, wherever they sit now. */
export const drives = sqliteTable(
  "drives",
  {
    key: text("key").primaryKey(),
    /** The machine that it sits in now; null on the shelf. */
    machineId: text("machine_id").references(() => machines.id, { onDelete: "set null" }),
    document: document("document").notNull(),
    version: integer("version").notNull().default(1),
    updatedAt: text("updated_at").notNull(),
  },
  (t) => [index("drives_machine").on(t.machineId)],
);

/** Measurements; rows are added, never changed. */
export const readings = sqliteTable(
  "readings",
  {
    id: integer("id").primaryKey({ autoIncrement: true }),
    machineId: text("machine_id")
      .notNull()
      .references(() => machines.id, { onDelete: "cascade" }),
    at: text("at").notNull(),
    by: text("by").notNull(),
    kind: text("kind").notNull(),
    what: text("what").notNull(),
    state: text("state").notNull(),
    value: real("value").notNull(),
    limit: real("limit_value"),
    source: text("source").notNull(),
    how: text("how").notNull().default(""),
  },
  (t) => [index("readings_machine").on(t.machineId, t.at)],
);

export const compatNotes = sqliteTable(
  "compat_notes",
  {
    id: text("id").primaryKey(),
    profile: text("profile").notNull(),
    document: document("document").notNull(),
    version: integer("version").notNull().default(1),
    updatedAt: text("updated_at").notNull(),
  },
  (t) => [index("compat_notes_profile").on(t.profile)],
);

/** Pictures beside the notes of a machine. */
export const pictures = sqliteTable(
  "pictures",
  {
    id: text("id").primaryKey(),
    machineId: text("machine_id")
      .notNull()
      .references(() => machines.id, { onDelete: "cascade" }),
    at: text("at").notNull(),
    by: text("by").notNull(),
    caption: text("caption").notNull(),
    type: text("type").notNull(),
    bytes: blob("bytes", { mode: "buffer" }).notNull(),
  },
  (t) => [index("pictures_machine").on(t.machineId, t.at)],
);

/** Every edition of every profile: a build keeps the one that it was made with, so none is ever overwritten. */
export const profiles = sqliteTable(
  "profiles",
  {
    key: text("key").notNull(),
    version: text("version").notNull(),
    /** Counts from 1 for each version of the operating system. */
    edition: integer("edition").notNull().default(1),
    name: text("name").notNull(),
    /** Who wrote this edition; empty for those that ship with Derrick. */
    by: text("by").notNull().default(""),
    updatedAt: text("updated_at").notNull(),
    yaml: text("yaml").notNull(),
  },
  (t) => [primaryKey({ columns: [t.key, t.version, t.edition] })],
);

/** Transfers that runs have measured; rows are added, never changed. */
export const transfers = sqliteTable(
  "transfers",
  {
    runId: text("run_id")
      .notNull()
      .references(() => runs.id, { onDelete: "cascade" }),
    step: text("step").notNull(),
    way: text("way").notNull(),
    through: text("through").notNull(),
    bytes: real("bytes").notNull(),
    seconds: real("seconds").notNull(),
    at: text("at").notNull(),
    where: text("where_seen").notNull(),
  },
  (t) => [primaryKey({ columns: [t.runId, t.step] }), index("transfers_way").on(t.way, t.at)],
);

/** How long waits of runs really took; rows are added, never changed. */
export const stepTimes = sqliteTable(
  "step_times",
  {
    runId: text("run_id")
      .notNull()
      .references(() => runs.id, { onDelete: "cascade" }),
    step: text("step").notNull(),
    /** Profile, version and screen: what the time is a time of. */
    screen: text("screen").notNull(),
    model: text("model").notNull(),
    seconds: real("seconds").notNull(),
    at: text("at").notNull(),
    where: text("where_seen").notNull(),
  },
  (t) => [primaryKey({ columns: [t.runId, t.step] }), index("step_times_screen").on(t.screen, t.at)],
);

export const images = sqliteTable("images", {
  id: text("id").primaryKey(),
  name: text("name").notNull(),
  profile: text("profile").notNull(),
  document: document("document").notNull(),
  version: integer("version").notNull().default(1),
  updatedAt: text("updated_at").notNull(),
});

export const builds = sqliteTable(
  "builds",
  {
    id: text("id").primaryKey(),
    number: text("number").notNull().unique(),
    machineId: text("machine_id").references(() => machines.id),
    imageId: text("image_id").references(() => images.id),
    subject: text("subject").notNull(),
    hostName: text("host_name").notNull(),
    address: text("address").notNull(),
    /** The last letter that was issued. */
    revision: text("revision"),
    /** The version that the letter stands for; when the build's is higher, the sheet was changed since. */
    revisionVersion: integer("revision_version"),
    version: integer("version").notNull().default(1),
    updatedAt: text("updated_at").notNull(),
    sheet: document("sheet").notNull(),
  },
  (t) => [index("builds_machine").on(t.machineId)],
);

/** Every save of a sheet: who, when, what changed. A letter marks an issued one. */
export const buildHistory = sqliteTable(
  "build_history",
  {
    buildId: text("build_id")
      .notNull()
      .references(() => builds.id, { onDelete: "cascade" }),
    version: integer("version").notNull(),
    at: text("at").notNull(),
    by: text("by").notNull(),
    letter: text("letter"),
    edits: json("edits").notNull(),
  },
  (t) => [primaryKey({ columns: [t.buildId, t.version] })],
);

export const runs = sqliteTable(
  "runs",
  {
    id: text("id").primaryKey(),
    buildId: text("build_id")
      .notNull()
      .references(() => builds.id),
    startedAt: text("started_at").notNull(),
    /** Set when it was handed over; kept beside the log so that lists need not fold every run. */
    endedAt: text("ended_at"),
    plan: document("plan").notNull(),
  },
  (t) => [
    index("runs_build").on(t.buildId),
    index("runs_open").on(t.endedAt),
    // One build is carried out by one run at a time, whoever asks and however often.
    uniqueIndex("runs_one_open")
      .on(t.buildId)
      .where(sql`ended_at is null`),
  ],
);

/** The run log: rows are added, never changed. The key makes a repeated message harmless. */
export const runEvents = sqliteTable(
  "run_events",
  {
    runId: text("run_id")
      .notNull()
      .references(() => runs.id, { onDelete: "cascade" }),
    seq: integer("seq").notNull(),
    at: text("at").notNull(),
    /** When the answer was given, where that was before it arrived. */
    given: text("given_at"),
    key: text("key").notNull(),
    event: json("event").notNull(),
  },
  (t) => [primaryKey({ columns: [t.runId, t.seq] }), unique("run_events_key").on(t.runId, t.key)],
);

/** Damaged documents that a person has set aside: they stay where they are and are no longer called for. */
export const setAside = sqliteTable(
  "set_aside",
  {
    kind: text("kind").notNull(),
    id: text("id").notNull(),
    at: text("at").notNull(),
    by: text("by").notNull(),
  },
  (t) => [primaryKey({ columns: [t.kind, t.id] })],
);

/** Long work of the server, so that a page can be closed and opened meanwhile, and a server that ended is not thought to be at it. */
export const jobs = sqliteTable(
  "jobs",
  {
    id: text("id").primaryKey(),
    kind: text("kind").notNull(),
    about: text("about").notNull(),
    /** What the use case that asked for it needs to know again. */
    input: json("input").notNull(),
    state: text("state").notNull(),
    by: text("by").notNull(),
    /** The process that works at it. */
    server: text("server").notNull(),
    askedAt: text("asked_at").notNull(),
    begunAt: text("begun_at"),
    pulseAt: text("pulse_at").notNull(),
    done: real("done").notNull().default(0),
    size: real("size").notNull(),
    problem: text("problem"),
  },
  (t) => [index("jobs_state").on(t.state), index("jobs_about").on(t.kind, t.about, t.askedAt)],
);

/**
 * Passwords without any of them: what each opens, a keyed mark by which the same one is known again, and the sealed hash
 * while an answer file may need it.
 */
export const secrets = sqliteTable(
  "secrets",
  {
    buildId: text("build_id")
      .notNull()
      .references(() => builds.id, { onDelete: "cascade" }),
    opens: text("opens").notNull(),
    mark: text("mark").notNull(),
    sealed: text("sealed"),
    at: text("at").notNull(),
    by: text("by").notNull(),
    destroyedAt: text("destroyed_at"),
  },
  (t) => [primaryKey({ columns: [t.buildId, t.opens] }), index("secrets_mark").on(t.mark)],
);

/** What somebody agreed to for one machine that installs itself over the network; its log tells the rest. */
export const armings = sqliteTable(
  "armings",
  {
    id: text("id").primaryKey(),
    machineId: text("machine_id")
      .notNull()
      .references(() => machines.id, { onDelete: "cascade" }),
    buildId: text("build_id")
      .notNull()
      .references(() => builds.id, { onDelete: "cascade" }),
    until: text("until").notNull(),
    /** Of the token that its files are asked for with; the token itself is kept nowhere. Null until a script was given. */
    tokenHash: text("token_hash"),
    agreed: json("agreed").notNull(),
  },
  (t) => [index("armings_machine").on(t.machineId, t.until), uniqueIndex("armings_token").on(t.tokenHash)],
);

/** All that was asked of the boot service, in its order; of machines that nobody has armed too. */
export const bootEvents = sqliteTable(
  "boot_events",
  {
    seq: integer("seq").primaryKey({ autoIncrement: true }),
    armingId: text("arming_id").references(() => armings.id, { onDelete: "cascade" }),
    at: text("at").notNull(),
    /** Who asked, by MAC; "" where it was told none. */
    mac: text("mac").notNull(),
    event: json("event").notNull(),
  },
  (t) => [index("boot_events_arming").on(t.armingId, t.seq), index("boot_events_mac").on(t.mac, t.seq)],
);
