import { readFileSync, rmSync } from "node:fs";
import { createServer, type Server } from "node:http";
import type { AddressInfo } from "node:net";
import { afterAll, beforeAll } from "vitest";
import { closeDatabase } from "@/server/database";
import { importAll } from "@/server/exports";
import { addShippedProfiles } from "@/server/profiles";
import { serveBoot } from "@/server/netboot/serve";
import { imageFolder } from "./boot-image";
import { desk } from "./desk";

const DEMO = (): string => readFileSync("demo/marrowby-water.json", "utf8");

/** The boot service over the demo, or over another export, at a port of its own, for one test file; `now` moves its clock. */
export function ownBootService(text: () => string = DEMO) {
  const service = { base: "", folder: "", now: undefined as string | undefined };
  let server: Server;
  beforeAll(async () => {
    await addShippedProfiles(await desk("Derrick"));
    const loaded = await importAll(await desk(), text(), { rebase: false });
    if (!loaded.ok) throw new Error(loaded.problems.map((p) => p.message).join("; "));
    service.folder = imageFolder();
    process.env.DERRICK_IMAGE_DIR = service.folder;
    server = createServer((request, response) => {
      void desk("boot service", service.now).then((d) => serveBoot(d, service.base, request, response));
    });
    await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
    service.base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
    process.env.DERRICK_BOOT_URL = service.base;
  });
  afterAll(async () => {
    server.closeAllConnections();
    await new Promise((resolve) => server.close(resolve));
    await closeDatabase();
    rmSync(service.folder, { recursive: true, force: true });
    delete process.env.DERRICK_BOOT_URL;
    delete process.env.DERRICK_IMAGE_DIR;
  });
  return service;
}
