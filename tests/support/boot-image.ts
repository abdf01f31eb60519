import { execFileSync } from "node:child_process";
import { mkdirSync, mkdtempSync, truncateSync, writeFileSync } from "node:fs";
import { request as httpRequest } from "node:http";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { seeded } from "./random";

/** The demo's build that is armed in tests, with what its machine tells of itself. */
export const ARMED = {
  build: "b-tho-a",
  mac: "02:61:14:00:00:01",
  serial: "PPN30051",
  drive: "SLW5129931",
  site: "s-thornhope",
};
const IMAGE = { name: "lowland-server-7.4-x86_64.iso", bytes: 2147483648 };

const random = seeded(41);
const noise = (length: number): Buffer =>
  Buffer.from(Array.from({ length }, () => Math.floor(random() * 256)));
/** Begins as a program of UEFI does. */
export const KERNEL = Buffer.concat([Buffer.from("MZ"), noise(150_001)]);
export const INITRD = noise(400_001);

/** What lies inside the image, by its path. */
const INSIDE: Readonly<Record<string, Buffer | string>> = {
  "netboot/kernel": KERNEL,
  "netboot/initial.img": INITRD,
  ".treeinfo": "[general]\nversion = 7.4\n",
};

/** An image of the demo's name and size in a folder of its own: what is started over the network lies inside it. */
export function imageFolder(inside = INSIDE, folder = mkdtempSync(join(tmpdir(), "derrick-boot-"))): string {
  const tree = join(folder, ".tree");
  for (const [path, bytes] of Object.entries(inside)) {
    mkdirSync(dirname(join(tree, path)), { recursive: true });
    writeFileSync(join(tree, path), bytes);
  }
  execFileSync("xorrisofs", ["-R", "-quiet", "-o", join(folder, IMAGE.name), tree], { stdio: "pipe" });
  truncateSync(join(folder, IMAGE.name), IMAGE.bytes);
  return folder;
}

export interface Reply {
  status: number;
  headers: Record<string, string | string[] | undefined>;
  body: Buffer;
}

/** One request as it stands on the line: no client puts its path in order first. */
export function ask(
  base: string,
  path: string,
  {
    method = "GET",
    headers = {},
    body,
    cutAfter,
  }: { method?: string; headers?: Record<string, string>; body?: string; cutAfter?: number } = {},
): Promise<Reply> {
  const { hostname, port } = new URL(base);
  return new Promise((resolve, reject) => {
    const request = httpRequest({ hostname, port, path, method, headers, agent: false }, (response) => {
      const parts: Buffer[] = [];
      let length = 0;
      response.on("data", (part: Buffer) => {
        parts.push(part);
        length += part.length;
        if (cutAfter !== undefined && length > cutAfter) response.destroy();
      });
      const end = () =>
        resolve({ status: response.statusCode ?? 0, headers: response.headers, body: Buffer.concat(parts) });
      response.on("end", end);
      response.on("close", end);
    });
    request.on("error", reject);
    request.end(body);
  });
}
