import { createWriteStream, existsSync, mkdirSync, renameSync } from "node:fs";
import { createReadStream, statSync } from "node:fs";
import { execFileSync } from "node:child_process";
import { createServer, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { dirname, join } from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";

/** Where this machine has its packages from; the signed archive as it is. */
const site = (): string =>
  execFileSync("apt-get", ["indextargets", "--format", "$(SITE) $(RELEASE) $(COMPONENT)"], { encoding: "utf8" })
    .split("\n")
    .find((line) => / \w+ main$/.test(line))!
    .split(" ")[0]!;

/**
 * Debian's archive for an emulated PC whose network holds nothing else: files are handed through as they are, signatures and
 * all, and those of the pool are kept in a folder. `missing` holds what the archive did not have.
 */
export async function serveArchive(folder: string) {
  const from = site();
  const told = { asked: [] as string[], missing: [] as string[] };
  const give = (path: string, response: ServerResponse): Promise<void> => {
    response.writeHead(200, { "Content-Length": statSync(path).size });
    return pipeline(createReadStream(path), response);
  };
  const answer = async (path: string, isHead: boolean, response: ServerResponse): Promise<void> => {
    const kept = join(folder, path);
    told.asked.push(path);
    if (process.env.REAL_TALK) process.stderr.write(`${path}\n`);
    if (existsSync(kept) && statSync(kept).isFile() && !isHead) return give(kept, response);
    // As it lies there: a length counts what is sent, and signatures are over what was not packed anew.
    const got = await fetch(`${from}${path.replace(/^\/debian/, "")}`, {
      method: isHead ? "HEAD" : "GET",
      headers: { "Accept-Encoding": "identity" },
    });
    if (!got.ok || !got.body) {
      told.missing.push(path);
      process.stderr.write(`missing ${path}\n`);
      response.writeHead(got.status).end();
      return;
    }
    if (!path.includes("/pool/")) {
      response.writeHead(200, { "Content-Length": got.headers.get("content-length") ?? "" });
      return pipeline(Readable.fromWeb(got.body as never), response);
    }
    mkdirSync(dirname(kept), { recursive: true });
    const part = `${kept}.${told.asked.length}.part`;
    await pipeline(Readable.fromWeb(got.body as never), createWriteStream(part));
    renameSync(part, kept);
    return give(kept, response);
  };
  const server = createServer((request, response) => {
    const path = decodeURIComponent(new URL(request.url ?? "/", "http://archive").pathname);
    answer(path, request.method === "HEAD", response).catch(() => response.destroy());
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return { ...told, port: (server.address() as AddressInfo).port, close: () => void (server.closeAllConnections(), server.close()) };
}
