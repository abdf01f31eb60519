import { z } from "zod";
import { editSchema } from "@/core/document";
import { no } from "@/server/answer";
import type { Desk } from "@/server/desk";
import { knownFailure } from "@/server/health";
import { desk } from "./desk";

type Refused = ReturnType<typeof no>;
type Given<A extends readonly z.ZodType[]> = { -readonly [K in keyof A]: z.input<A[K]> };
type Read<A extends readonly z.ZodType[]> = { -readonly [K in keyof A]: z.output<A[K]> };

/**
 * The one door of server actions: what a browser sends is anything at all, so the arguments are read by a schema before a
 * use case sees them, at a desk in the name of whoever asks. What does not fit is refused in words, with its place, and
 * nothing is done.
 */
export function action<const Args extends readonly [z.ZodType, ...z.ZodType[]], R>(
  args: Args,
  useCase: (desk: Desk, ...args: Read<Args>) => Promise<R>,
): (...given: Given<Args>) => Promise<R | Refused> {
  const schema = z.tuple([...args]);
  return async (...given) => {
    const read = schema.safeParse(given);
    if (read.success) return inWords(async () => useCase(await desk(), ...(read.data as Read<Args>)));
    const [issue] = read.error.issues;
    return no(`Invalid input, nothing was changed: ${issue?.path.join(" ")} ${issue?.message}`);
  };
}

/** A database that cannot save now, or a document that is not sound, says why; the interface keeps what was typed. */
async function inWords<R>(act: () => Promise<R>): Promise<R | Refused> {
  try {
    return await act();
  } catch (error) {
    const known = knownFailure(error);
    if (known) return no(known.words);
    throw error;
  }
}

export const idSchema = z.string().min(1).max(80);
export const versionSchema = z.number().int().nonnegative();
export const textsSchema = z.array(z.object({ name: z.string().max(300), text: z.string() })).max(60);
/** Changes of a document, field by field; more than a form has fields is no form. */
export const editsSchema = z.array(editSchema).max(500);
