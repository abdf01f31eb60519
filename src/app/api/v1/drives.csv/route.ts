import { registerCsv } from "@/server/drives";
import { csvFile } from "../../csv";
import { route } from "../../answer";

export const dynamic = "force-dynamic";

export const GET = route(async () => csvFile(await registerCsv(), "drives.csv"));
