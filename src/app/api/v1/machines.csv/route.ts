import { machineListCsv } from "@/server/machines";
import { csvFile } from "../../csv";
import { route } from "../../answer";

export const dynamic = "force-dynamic";

export const GET = route(async () => csvFile(await machineListCsv(), "machines.csv"));
