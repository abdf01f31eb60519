// Machines that start over the network, as a program: npm run netboot-client -- --base URL --machine MAC,SERIAL [--code CODE] [--fault WORDS];
// with --demo NAME instead, a machine of the demo, whose serial is then not told on the screen.
import { readFileSync } from "node:fs";
import { parseArgs } from "node:util";
import { FAULTS, walkMachine, type Client } from "./machine";

const { values } = parseArgs({
  options: {
    base: { type: "string", default: "http://127.0.0.1:4370" },
    machine: { type: "string", multiple: true, default: [] },
    demo: { type: "string", multiple: true, default: [] },
    firmware: { type: "string", default: "uefi" },
    fault: { type: "string" },
    code: { type: "string" },
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
if (values.machine.length + values.demo.length === 0)
  wrong(
    "--machine wants MAC,SERIAL, and --demo the name of a machine of the demo; each may be given several times.",
  );
const client = (name: string, mac: string, serial: string): Client => ({
  ...{ name, mac: mac.toLowerCase(), serial, uuid: "", fault: fault ?? null, code: values.code },
  ...{ maker: values.maker, model: values.model, firmware: firmware ?? "uefi" },
});
const machines = values.machine.map((text) => {
  const [mac = "", serial = ""] = text.split(",");
  if (!/^([0-9a-f]{2}:){5}[0-9a-f]{2}$/i.test(mac)) wrong(`"${mac}" is no MAC.`);
  return client(serial || mac, mac, serial);
});
interface Named {
  name: string;
  document: { facts: { chassis: { serial: string | null } | null; ports: { mac: string }[] } };
}
const shipped =
  values.demo.length === 0
    ? []
    : (JSON.parse(readFileSync("demo/marrowby-water.json", "utf8")) as { machines: Named[] }).machines;
const ofDemo = values.demo.map((name) => {
  const facts = shipped.find((m) => m.name === name)?.document.facts;
  if (!facts) return wrong(`The demo has no machine called ${name}.`);
  return client(name, facts.ports[0]?.mac ?? "", facts.chassis?.serial ?? "");
});
const clients = [...machines, ...ofDemo];
const ended = await Promise.all(
  clients.map(async (client) => ({ client, told: await walkMachine(client, { base: values.base, pace }) })),
);
for (const { client, told } of ended)
  console.log([`${client.name}: ${told.ended}`, ...told.said.map((words) => `  ${words}`)].join("\n"));
process.exit(ended.every(({ told }) => told.ended === "starts from its disk") ? 0 : 1);
