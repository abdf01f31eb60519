import { registerCsv } from "@/server/drives";
import { csvFile } from "../../csv";

export const dynamic = "force-dynamic";

export const GET = async (): Promise<Response> => csvFile(await registerCsv(), "drives.csv");
