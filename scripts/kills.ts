// npm run kills [-- NUMBER]: kills the built server with SIGKILL under load, a thousand times unless told otherwise, and
// says what was lost. Loopback only, a database of its own.
import { killStorm } from "../tests/support/kill-storm";
import { OwnServer } from "../tests/support/own-server";

const kills = Number(process.argv[2] ?? 1000);
const server = new OwnServer("kills", 4384);
const began = Date.now();
try {
  const storm = await killStorm(server, kills, Date.now());
  console.log(
    `${storm.kills} kills in ${Math.round((Date.now() - began) / 1000)} s: ${storm.acknowledged} answers acknowledged, ${storm.unanswered} cut off and sent again, ${storm.lost.length} lost, ${storm.doubled.length} doubled, log ${storm.counted ? "without gaps" : "WITH GAPS"}.`,
  );
  process.exitCode = storm.lost.length + storm.doubled.length === 0 && storm.counted ? 0 : 1;
} finally {
  await server.end("SIGKILL");
}
