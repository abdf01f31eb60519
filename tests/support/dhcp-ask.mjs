// Asks a DHCP server as firmware and boot loaders do, through a relay's address, so that no interface needs to be without
// one. Prints one line of JSON for each client: what it is told to start. Run inside a network namespace.
import { createSocket } from "node:dgram";

const [server, relay] = process.argv.slice(2);
const CLIENTS = [
  ["bios", 0, "PXEClient:Arch:00000", ""],
  ["x64", 7, "PXEClient:Arch:00007", ""],
  ["x64 as byte code", 9, "PXEClient:Arch:00009", ""],
  ["arm64", 11, "PXEClient:Arch:00011", ""],
  ["x64 over HTTP", 16, "HTTPClient:Arch:00016", ""],
  ["iPXE under BIOS", 0, "PXEClient:Arch:00000", "iPXE"],
  ["iPXE under UEFI", 7, "PXEClient:Arch:00007", "iPXE"],
  ["installer", null, "d-i", ""],
];

function discover(i, arch, vendor, user) {
  const head = Buffer.alloc(240);
  head.set([1, 1, 6, 1], 0);
  head.writeUInt32BE(0x51000000 + i, 4);
  head.set(relay.split(".").map(Number), 24);
  head.set([2, 0x61, 0x0a, 0, 1, i], 28);
  head.writeUInt32BE(0x63825363, 236);
  const option = (number, ...data) => Buffer.from([number, Buffer.from(data.flat()).length, ...data.flat()]);
  return Buffer.concat([
    head,
    option(53, [1]),
    option(55, [1, 3, 6, 43, 60, 66, 67]),
    option(60, [...Buffer.from(vendor)]),
    ...(arch === null ? [] : [option(93, [arch >> 8, arch & 255]), option(94, [1, 3, 16])]),
    ...(user ? [option(77, [...Buffer.from(user)]), option(175, [177, 5, 1, 0x80, 0x86, 0x10, 0x0e])] : []),
    Buffer.from([255]),
  ]);
}

const text = (b) => b.toString("latin1").replace(/\0.*$/s, "");

function told(answer) {
  const options = new Map();
  for (let at = 240; at < answer.length && answer[at] !== 255;) {
    if (answer[at] === 0) {
      at += 1;
      continue;
    }
    options.set(answer[at], answer.subarray(at + 2, at + 2 + answer[at + 1]));
    at += 2 + answer[at + 1];
  }
  return {
    file: text(answer.subarray(108, 236)) || text(options.get(67) ?? Buffer.alloc(0)),
    next: [...answer.subarray(20, 24)].join("."),
    vendor: text(options.get(60) ?? Buffer.alloc(0)),
  };
}

const socket = createSocket("udp4");
await new Promise((resolve) => socket.bind(67, relay, resolve));
const waiting = new Map();
socket.on("message", (message) => waiting.get(message.readUInt32BE(4))?.(message));
for (const [i, [name, arch, vendor, user]] of CLIENTS.entries()) {
  const answer = await new Promise((resolve) => {
    const send = () => socket.send(discover(i, arch, vendor, user), 67, server);
    const again = setInterval(send, 1000);
    const late = setTimeout(() => end(null), 8000);
    const end = (message) => {
      clearInterval(again);
      clearTimeout(late);
      resolve(message);
    };
    waiting.set(0x51000000 + i, end);
    send();
  });
  console.log(JSON.stringify({ client: name, ...(answer && told(answer)) }));
}
socket.close();
