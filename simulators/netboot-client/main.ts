// Machines that start over the network, as a program: npm run netboot-client -- --base URL --machine MAC,SERIAL [--fault WORDS]
import { parseArgs } from "node:util";
import { FAULTS, walkMachine, type Client } from "./machine";

const { values } = parseArgs({
  options: {
    base: { type: "string", default: "http://127.0.0.1:4370" },
    machine: { type: "string", multiple: true, default: [] },
    firmware: { type: "string", default: "uefi" },
    fault: { type: "string" },
    pace: { type: "string", default: "60" },
    maker: { type: "string", default: "Ostler" },
    model: { type: "string", default: "R114" },
  },
});
const FIRMWARE = ["bios", "uefi", "uefi over http"] as const;
const wrong = (words: string): never => {
  console.error(words);
  process.exit(2);
};
const firmware = FIRMWARE.find((f) => f === values.firmware);
const fault = values.fault === undefined ? null : FAULTS.find((f) => f === values.fault);
const pace = Number(values.pace);
if (!firmware) wrong(`--firmware is one of: ${FIRMWARE.join(", ")}.`);
if (fault === undefined) wrong(`--fault is one of: ${FAULTS.join(", ")}.`);
if (!(pace >= 1)) wrong("--pace is how many seconds of a machine pass in one, from 1.");
if (values.machine.length === 0) wrong("--machine wants MAC,SERIAL; it may be given several times.");
const clients = values.machine.map((text): Client => {
  const [mac = "", serial = ""] = text.split(",");
  if (!/^([0-9a-f]{2}:){5}[0-9a-f]{2}$/i.test(mac)) wrong(`"${mac}" is no MAC.`);
  return {
    ...{ name: serial || mac, mac: mac.toLowerCase(), serial, uuid: "", fault: fault ?? null },
    ...{ maker: values.maker, model: values.model, firmware: firmware ?? "uefi" },
  };
});
const ended = await Promise.all(
  clients.map(async (client) => ({ client, told: await walkMachine(client, { base: values.base, pace }) })),
);
for (const { client, told } of ended)
  console.log([`${client.name}: ${told.ended}`, ...told.said.map((words) => `  ${words}`)].join("\n"));
process.exit(ended.every(({ told }) => told.ended === "starts from its disk") ? 0 : 1);
