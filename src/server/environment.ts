import { resolve } from "node:path";
import { z } from "zod";

/** http or https, a name or an address, perhaps a port: nothing that a shell line or a header could misread. */
const ORIGIN = /^https?:\/\/(\[[0-9a-f:.]+\]|[a-z0-9]([a-z0-9.-]*[a-z0-9])?)(:\d{1,5})?\/?$/i;

const environmentSchema = z
  .object({
    /** file:… for a file, or libsql:// or https:// for a libSQL server. */
    DERRICK_DB_URL: z
      .string()
      .regex(
        /^(file:|libsql:\/\/|https?:\/\/|wss?:\/\/)/,
        "must begin with file:, libsql:, https:, http:, wss: or ws:",
      )
      .default("file:.derrick/derrick.db"),
    DERRICK_DB_TOKEN: z.string().optional(),
    /** The address under which people and machines reach Derrick; the collector's lines are written with it. */
    DERRICK_ORIGIN: z
      .string()
      .regex(
        ORIGIN,
        "must be an address without a path, for example https://derrick.example or http://10.61.10.5:4360",
      )
      .transform((address) => new URL(address).origin)
      .default("http://127.0.0.1:4360"),
    /** The address under which installing machines reach the boot service, which listens there; it is off while this is not set. */
    DERRICK_BOOT_URL: z
      .string()
      .regex(ORIGIN, "must be an address without a path, for example http://10.61.10.5:4370")
      .refine(
        (url) => url.startsWith("http://"),
        "must begin with http://, because firmware does not trust your certificate; use DERRICK_BOOT_TLS_URL for HTTPS",
      )
      .transform((address) => new URL(address).origin)
      .optional(),
    /** Where the boot service is reached over HTTPS as well, beside DERRICK_BOOT_URL, with a certificate of its own. */
    DERRICK_BOOT_TLS_URL: z
      .string()
      .regex(ORIGIN, "must be an address without a path, for example https://10.61.10.5:4371")
      .refine((url) => url.startsWith("https://"), "must begin with https://")
      .transform((address) => new URL(address).origin)
      .optional(),
    /** What the server's own link and disk give to machines that install themselves, in Mbit/s and in MB/s. */
    DERRICK_BOOT_LINK: z.coerce.number("must be a number of Mbit/s, for example 10000").positive().optional(),
    DERRICK_BOOT_DISK: z.coerce.number("must be a number of MB/s, for example 500").positive().optional(),
    /** The file with the key that hashes of passwords are sealed with; made at the first use, beside the database. */
    DERRICK_KEY_FILE: z.string().min(1).optional(),
    /** A folder of this server with image files; they can be put on the shelf from there. */
    DERRICK_IMAGE_DIR: z.string().min(1).optional(),
  })
  .refine(({ DERRICK_BOOT_URL: plain, DERRICK_BOOT_TLS_URL: tls }) => plain || !tls, {
    path: ["DERRICK_BOOT_TLS_URL"],
    message: "needs DERRICK_BOOT_URL too, which most machines use",
  });

export type Environment = z.infer<typeof environmentSchema> & {
  migrationsFolder: string;
  profilesFolder: string;
  /** The made-up data that can be looked at. */
  demoFile: string;
};

/** Reads the environment once; a wrong value is an error that names the variable and what it wants. */
export function readEnvironment(): Environment {
  const read = environmentSchema.safeParse(process.env);
  if (!read.success) {
    const problems = read.error.issues.map((i) => `${i.path.join(".")}: ${i.message}`);
    throw new Error(`Derrick cannot start: invalid environment variables. ${problems.join("; ")}`);
  }
  return {
    ...read.data,
    migrationsFolder: resolve("src/db/migrations"),
    profilesFolder: resolve("profiles"),
    demoFile: resolve("demo/marrowby-water.json"),
  };
}
