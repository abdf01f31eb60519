import { recordJsonSchema } from "@/core/record";

export const GET = (): Response => Response.json(recordJsonSchema());
