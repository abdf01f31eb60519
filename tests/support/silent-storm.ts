import { spawn } from "node:child_process";
import { connect } from "node:net";
import { fileURLToPath } from "node:url";

/** So many attackers, each with an address of its own on this machine; one that is cut off comes again. */
const [ADDRESSES, AGAIN_MILLISECONDS] = [500, 200];

/** Opens so many connections at a port, which ask nothing, and keeps them up until this program is ended. */
function storm(port: number, count: number): void {
  const one = (n: number): void => {
    const from = `127.9.${1 + Math.floor((n % ADDRESSES) / 250)}.${1 + (n % 250)}`;
    const socket = connect({ host: "127.0.0.1", port, localAddress: from });
    socket.on("error", () => undefined);
    socket.on("close", () => setTimeout(() => one(n), AGAIN_MILLISECONDS));
  };
  for (let n = 0; n < count; n += 1) one(n);
  setTimeout(() => console.log("all of them have come"), 2000);
}

/** A program of its own that holds so many silent connections at each of these ports; its end is the end of them. */
export async function silentStorm(ports: readonly number[], each: number): Promise<{ end: () => void }> {
  const programs = ports.map((port) =>
    spawn(process.execPath, ["--import", "tsx", fileURLToPath(import.meta.url), String(port), String(each)], {
      stdio: ["ignore", "pipe", "inherit"],
    }),
  );
  await Promise.all(
    programs.map(
      (program) =>
        new Promise<void>((resolve, reject) => {
          program.stdout.once("data", () => resolve());
          program.once("exit", (code) => reject(new Error(`The storm ended with ${code}.`)));
        }),
    ),
  );
  return { end: () => programs.forEach((program) => program.kill()) };
}

const [, self, port, count] = process.argv;
if (self === fileURLToPath(import.meta.url)) storm(Number(port), Number(count));
