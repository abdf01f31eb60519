import { failed, type Tried } from "./attempt";
import type { BootDevice, NetworkAnswer } from "./machine";
import type { Oracle } from "./questions";
import type { ReasonCode } from "./reasons";

const REFUSALS: Readonly<Record<Exclude<NetworkAnswer["kind"], "program">, ReasonCode>> = {
  nobody: "nobody answers",
  "no boot file": "no boot file",
  "file missing": "boot file missing",
  "no program": "boot file no program",
  "link down": "link down",
};

/** A port asks the network for something to start. */
export function startNetwork(device: BootDevice, by: "pxe" | "http", oracle: Oracle): Tried {
  const answer = device.answers?.[by];
  if (!answer) {
    const is = oracle.ask("answers", false, device.id, { device: device.name });
    return is ? started(device, "") : failed("nobody answers", device);
  }
  return answer.kind === "program" ? started(device, answer.starts) : failed(REFUSALS[answer.kind], device);
}

const started = (device: BootDevice, starts: string): Tried => ({
  ...{ device, file: null, outcome: "starts", reason: null, starts },
});
