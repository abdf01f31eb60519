import { machineListCsv } from "@/server/machines";
import { csvFile } from "../../csv";
import { route } from "../../answer";
import { desk } from "../../../desk";

export const dynamic = "force-dynamic";

export const GET = route(async () => csvFile(await machineListCsv(await desk()), "machines.csv"));
