import { connect, type Socket } from "node:net";
import { createServer } from "node:http";
import type { AddressInfo } from "node:net";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { limitConnections, mostConnections } from "@/server/netboot/connections";
import { armMachine } from "@/server/netboot/arm";
import { bootBoard } from "@/server/netboot/board";
import { makeReady } from "../support/armed";
import { ARMED, ask } from "../support/boot-image";
import { ownBootService } from "../support/boot-service";
import { ownDatabase } from "../support/database";
import { desk } from "../support/desk";

// What somebody on the install network may try against the boot service.

const opened: Socket[] = [];
const silent = (port: number, host = "127.0.0.1", from?: string): Promise<Socket> =>
  new Promise((resolve, reject) => {
    const socket = connect({ port, host, ...(from && { localAddress: from }) }, () => resolve(socket));
    socket.on("error", reject);
    opened.push(socket);
  });
const isOpen = (socket: Socket): boolean => !socket.destroyed && socket.readyState === "open";
const settled = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 200));
afterAll(() => opened.forEach((socket) => socket.destroy()));

describe("connections that ask nothing", () => {
  let hold = (): void => undefined;
  const server = createServer((_, response) => (hold = () => response.end("held")));
  const portOf = (): number => (server.address() as AddressInfo).port;
  beforeAll(async () => {
    limitConnections(server, 8, 3);
    await new Promise<void>((resolve) => server.listen(0, "0.0.0.0", resolve));
  });
  afterAll(() => {
    server.closeAllConnections();
    server.close();
  });

  it("give way to those that come later, the oldest first, and one that asks stays", async () => {
    const busy = await silent(portOf());
    busy.write("GET / HTTP/1.1\r\nHost: a\r\n\r\n");
    await settled();
    const others: Socket[] = [];
    for (let i = 0; i < 20; i += 1) others.push(await silent(portOf()));
    await settled();
    expect(others.map(isOpen)).toEqual([...Array<boolean>(13).fill(false), ...Array<boolean>(7).fill(true)]);
    const answer = new Promise<string>((resolve) => busy.once("data", (d) => resolve(d.toString())));
    hold();
    expect(await answer).toContain("held");
  });

  it("leave descriptors to the application, whatever the limit of the process", () => {
    expect([64, 1024, 4096, Infinity].map(mostConnections)).toEqual([16, 256, 1280, 4096]);
  });
});

describe("a report", () => {
  ownDatabase();
  const service = ownBootService();
  let token = "";
  beforeAll(async () => {
    await makeReady();
    await armMachine(await desk(), ARMED.build, { typed: ARMED.serial, minutes: 60, asksCode: false });
    const script = await ask(service.base, `/script?mac=${ARMED.mac}&serial=${ARMED.serial}`);
    token = /\/t\/([\w-]{32})\//.exec(script.body.toString())![1]!;
  });
  const reported = async (): Promise<string[]> =>
    Object.keys((await bootBoard(await desk())).rows[0]!.state.reached);

  it("that is too long is answered after its end, and counts", async () => {
    const body = `words=${"a".repeat(1e6)}`;
    const { status } = await ask(service.base, `/t/${token}/report/installed`, { method: "POST", body });
    expect([status, await reported()]).toEqual([200, expect.arrayContaining(["first boot"])]);
  });

  it("whose body has no end is answered in time, and does not count", async () => {
    const socket = await silent(Number(new URL(service.base).port));
    const answer = new Promise<string>((resolve) => socket.once("data", (d) => resolve(d.toString())));
    socket.write(
      `POST /t/${token}/report/done HTTP/1.1\r\nHost: a\r\nTransfer-Encoding: chunked\r\n\r\n5\r\nwords\r\n`,
    );
    expect(await answer).toMatch(/^HTTP\/1\.1 408 [^]*Connection: close/);
    expect(await reported()).not.toContain("done");
  });
});
