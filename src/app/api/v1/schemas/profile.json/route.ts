import { profileJsonSchema } from "@/core/image";

export const GET = (): Response => Response.json(profileJsonSchema());
