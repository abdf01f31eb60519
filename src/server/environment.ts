import { resolve } from "node:path";
import { z } from "zod";

const environmentSchema = z.object({
  /** file:… for a file, or libsql:// or https:// for a libSQL server. */
  DERRICK_DB_URL: z
    .string()
    .regex(
      /^(file:|libsql:\/\/|https?:\/\/|wss?:\/\/)/,
      "begins with file:, libsql:, https:, http:, wss: or ws:",
    )
    .default("file:.derrick/derrick.db"),
  DERRICK_DB_TOKEN: z.string().optional(),
  /** The address under which the collector reaches Derrick; its post-back lines are written with it. */
  DERRICK_ORIGIN: z.url().default("http://127.0.0.1:4360"),
  /** A folder of this server with image files; they can be put on the shelf from there. */
  DERRICK_IMAGE_DIR: z.string().min(1).optional(),
});

export type Environment = z.infer<typeof environmentSchema> & {
  migrationsFolder: string;
  profilesFolder: string;
};

/** Reads the environment once; a wrong value is an error that names the variable and what it wants. */
export function readEnvironment(): Environment {
  const read = environmentSchema.safeParse(process.env);
  if (!read.success) {
    const problems = read.error.issues.map((i) => `${i.path.join(".")}: ${i.message}`);
    throw new Error(`Derrick cannot start with this environment. ${problems.join("; ")}`);
  }
  return {
    ...read.data,
    migrationsFolder: resolve("src/db/migrations"),
    profilesFolder: resolve("profiles"),
  };
}
