import { registerCsv } from "@/server/drives";
import { csvFile } from "../../csv";
import { route } from "../../answer";
import { desk } from "../../../desk";

export const dynamic = "force-dynamic";

export const GET = route(async () => csvFile(await registerCsv(await desk()), "drives.csv"));
