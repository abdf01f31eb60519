// Begins the thread in which the server reads what tools printed: TypeScript as it stands, as the other commands run it.
import { register } from "tsx/esm/api";

register();
await import("./intake-worker.ts");
