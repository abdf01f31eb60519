import { machineListCsv } from "@/server/machines";
import { csvFile } from "../../csv";

export const dynamic = "force-dynamic";

export const GET = async (): Promise<Response> => csvFile(await machineListCsv(), "machines.csv");
