import { expect, it } from "vitest";
import { readTexts } from "../..";
import type { Importer } from "./importer";
import { sockstat, ss } from "./listening";

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
const facts = (text: string, tool: Importer = ss) => {
  const read = tool.parse(text);
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
  expect(ss.parse(HEADED)).toMatchObject({ value: { ignored: ["1 line of other sockets"] } });
  expect(facts("tcp ESTAB 0 0 10.0.0.1:22 10.0.0.2:1\n")).toMatchObject([
    { message: expect.stringMatching(/no line/) },
  ]);
});

it("is recognised by its lines, with a heading or without", () => {
  for (const text of [BARE, HEADED])
    expect(readTexts([{ name: "x", text }]).readings.map((r) => r.tool)).toEqual(["ss"]);
  expect(ss.recognises("tcp and udp are protocols\n")).toBe(false);
});

// In the columns of the tool's manual; the third line is a second process of one socket, the last two do not listen.
const BSD = `USER     COMMAND    PID   FD  PROTO  LOCAL ADDRESS         FOREIGN ADDRESS
root     sshd       812   3   tcp6   *:22                  *:*
root     sshd       812   4   tcp4   *:22                  *:*
root     sshd       813   4   tcp4   *:22                  *:*
www      my daemon  901   5   tcp46  *:8080                *:*
ntpd     ntpd       700   20  udp6   fe80::1%lo0:123       *:*
root     sendmail   640   3   tcp6   ::1:25                *:*
root     syslogd    600   6   udp4   *:*                   *:*
root     sshd       990   4   tcp4   10.61.10.20:22        10.61.10.9:55110
`;

it("reads a BSD system's table, each socket once, by the family that it is for", () => {
  expect(facts(BSD, sockstat)).toEqual([
    ...["tcp :: 22", "tcp 0.0.0.0 22", "tcp * 8080", "udp fe80::1 123", "tcp ::1 25"],
  ]);
  expect(sockstat.parse(BSD)).toMatchObject({ value: { ignored: ["2 lines of other sockets"] } });
  for (const text of [BSD, BSD.slice(BSD.indexOf("\n") + 1)])
    expect(readTexts([{ name: "x", text }]).readings.map((r) => r.tool)).toEqual(["sockstat"]);
  const connected = "root sshd 990 4 tcp4 10.61.10.20:22 10.61.10.9:55110\n";
  expect(facts(connected, sockstat)).toMatchObject([{ message: expect.stringMatching(/no line/) }]);
  expect(sockstat.recognises(connected)).toBe(false);
});
