import { expect, it } from "vitest";
import { readTexts } from "..";
import { listening } from "./ss";

// Printed by the tool in a network namespace with sockets of each kind.
const BARE = `udp UNCONN 0      0      127.0.0.53%lo:53   0.0.0.0:*
udp UNCONN 0      0         0.0.0.0:123  0.0.0.0:*
tcp LISTEN 0      8               *:9090       *:*
tcp LISTEN 0      8            [::]:22      [::]:*
tcp LISTEN 0      8           [::1]:631     [::]:*
`;
const HEADED = `Netid State  Recv-Q Send-Q Local Address:Port Peer Address:PortProcess
tcp   LISTEN 0      8            0.0.0.0:22        0.0.0.0:*    users:(("sshd",pid=1,fd=3))
tcp   ESTAB  0      0         10.61.10.20:22     10.61.10.9:55110
`;
const facts = (text: string) => {
  const read = listening.parse(text);
  return read.ok
    ? read.value.facts.system?.listening?.map((l) => `${l.protocol} ${l.address} ${l.port}`)
    : read.problems;
};

it("reads what a machine answers with, on which of its addresses", () => {
  expect(facts(BARE)).toEqual([
    "udp 127.0.0.53 53",
    "udp 0.0.0.0 123",
    "tcp * 9090",
    "tcp :: 22",
    "tcp ::1 631",
  ]);
  expect(facts(HEADED)).toEqual(["tcp 0.0.0.0 22"]);
  expect(listening.parse(HEADED)).toMatchObject({ value: { ignored: ["1 lines of other sockets"] } });
  expect(facts("tcp ESTAB 0 0 10.0.0.1:22 10.0.0.2:1\n")).toMatchObject([
    { message: expect.stringMatching(/no line/) },
  ]);
});

it("is recognised by its lines, with a heading or without", () => {
  for (const text of [BARE, HEADED])
    expect(readTexts([{ name: "x", text }]).readings.map((r) => r.tool)).toEqual(["ss"]);
  expect(listening.recognises("tcp and udp are protocols\n")).toBe(false);
});
