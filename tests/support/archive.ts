import { execFileSync } from "node:child_process";
import { createHash } from "node:crypto";
import { createReadStream, createWriteStream, existsSync, mkdirSync, renameSync, statSync } from "node:fs";
import { createServer, type ServerResponse } from "node:http";
import type { AddressInfo } from "node:net";
import { dirname, join } from "node:path";
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import { gzipSync } from "node:zlib";

/** Where this machine has its packages from. */
export const archiveSite = (): string =>
  execFileSync("apt-get", ["indextargets", "--format", "$(SITE) $(RELEASE) $(COMPONENT)"], {
    encoding: "utf8",
  })
    .split("\n")
    .find((line) => / \w+ main$/.test(line))!
    .split(" ")[0]!;

/** As it lies there: what is packed anew on its way has another length. */
const got = (url: string): Promise<Response> => fetch(url, { headers: { "Accept-Encoding": "identity" } });

export const INDEXES = ["main/debian-installer/binary-amd64/Packages", "main/binary-amd64/Packages"] as const;

/**
 * Debian's archive for an emulated PC whose network holds nothing else: files are handed through as they are, and those of the
 * pool are kept in a folder. The indexes and the Release over them are written anew, without a signature: the archive as it is
 * reached here may be older in one part than in another. `missing` holds what it did not have.
 */
export async function serveArchive(suite: string, indexes: Record<string, string>, folder: string) {
  const from = archiveSite();
  const missing: string[] = [];
  const own = new Map<string, Buffer>();
  for (const [path, text] of Object.entries(indexes)) {
    own.set(path, Buffer.from(text));
    own.set(`${path}.gz`, gzipSync(text));
  }
  const sums = [...own].map(
    ([path, bytes]) => ` ${createHash("sha256").update(bytes).digest("hex")} ${bytes.length} ${path}`,
  );
  const release = [
    ...["Origin: Debian", "Label: Debian", "Suite: stable", `Codename: ${suite}`, "Version: 13.0"],
    ...[
      `Date: ${new Date().toUTCString()}`,
      "Architectures: amd64",
      "Components: main",
      "SHA256:",
      ...sums,
      "",
    ],
  ].join("\n");
  own.set("Release", Buffer.from(release));
  own.set(
    "main/binary-amd64/Release",
    Buffer.from("Archive: stable\nComponent: main\nOrigin: Debian\nLabel: Debian\nArchitecture: amd64\n"),
  );
  const send = (path: string, response: ServerResponse): Promise<void> => {
    response.writeHead(200, { "Content-Length": statSync(path).size });
    return pipeline(createReadStream(path), response);
  };
  const answer = async (path: string, response: ServerResponse): Promise<void> => {
    const name = path.replace(/^\/debian\/dists\/[^/]+\//, "");
    const [, of] = /^\/debian\/dists\/([^/]+)\//.exec(path) ?? [];
    const bytes = of === suite || of === "stable" ? own.get(name) : undefined;
    if (bytes) return void response.writeHead(200, { "Content-Length": bytes.length }).end(bytes);
    if (!path.startsWith("/debian/pool/")) {
      missing.push(path);
      return void response.writeHead(404).end();
    }
    const kept = join(folder, path);
    if (existsSync(kept)) return send(kept, response);
    const found = await got(`${from}${path.slice("/debian".length)}`);
    if (!found.ok || !found.body) {
      missing.push(path);
      return void response.writeHead(found.status).end();
    }
    mkdirSync(dirname(kept), { recursive: true });
    const part = `${kept}.${process.hrtime.bigint()}.part`;
    await pipeline(Readable.fromWeb(found.body as never), createWriteStream(part));
    renameSync(part, kept);
    return send(kept, response);
  };
  const server = createServer((request, response) => {
    const path = decodeURIComponent(new URL(request.url ?? "/", "http://archive").pathname);
    if (process.env.REAL_TALK) process.stderr.write(`${path}\n`);
    answer(path, response).catch(() => response.destroy());
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  return {
    missing,
    port: (server.address() as AddressInfo).port,
    close: () => {
      server.closeAllConnections();
      server.close();
    },
  };
}
