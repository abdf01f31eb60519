import { z } from "zod";
import { modeWords } from "../boot";
import { drivesOf, portOf, segmentOf, targetOf, type BuildContext } from "../build";
import { contentWords, driveName } from "../machine";
import { prefixLengthOf } from "../network";
import { dispositionOf } from "../storage";

/** One thing that the installed system must show; `planned` is for people, `match` for the comparison. */
export const expectationSchema = z.object({
  id: z.string(),
  zone: z.string(),
  what: z.string(),
  planned: z.string(),
  match: z.discriminatedUnion("kind", [
    z.object({ kind: z.literal("fact"), path: z.string(), equals: z.string() }),
    z.object({ kind: z.literal("system"), id: z.string(), version: z.string() }),
    z.object({ kind: z.literal("host name"), name: z.string(), full: z.string() }),
    z.object({ kind: z.literal("address"), address: z.string(), prefixLength: z.number().nullable() }),
    z.object({ kind: z.literal("name servers"), all: z.array(z.string()) }),
    z.object({ kind: z.literal("port"), mac: z.string() }),
    z.object({ kind: z.literal("target"), drive: z.string() }),
    z.object({ kind: z.literal("untouched"), drive: z.string(), holds: z.string() }),
  ]),
});
export type Expectation = z.infer<typeof expectationSchema>;

type Match = Expectation["match"];
const expect = (id: string, zone: string, what: string, planned: string, match: Match): Expectation[] =>
  planned === "" ? [] : [{ id, zone, what, planned, match }];

const fact = (path: string, equals: string): Match => ({ kind: "fact", path, equals });

/** What acceptance must find, drawn from the plan; what the plan does not decide is not asked. */
export function planExpectations(context: BuildContext): Expectation[] {
  const { sheet, profile, machine, image } = context;
  const { network, answers } = sheet;
  const target = targetOf(context);
  const port = portOf(context);
  const serial = machine?.document.facts.chassis?.serial ?? "";
  const length = prefixLengthOf(segmentOf(context)?.prefix ?? "");
  const fixed = network.school === "dynamic" ? "" : network.address;
  const full = [answers.hostName, answers.domain].filter(Boolean).join(".");
  const untouched = drivesOf(context)
    .filter((d) => dispositionOf(d, sheet.storage) === "leave alone")
    .flatMap((d) =>
      expect(`untouched-${d.id}`, "D", `${driveName(d)} left alone`, contentWords(d), {
        kind: "untouched",
        drive: d.id,
        holds: contentWords(d),
      }),
    );
  return [
    ...expect("serial", "A", "Chassis serial", serial, fact("chassis.serial", serial)),
    ...(profile && image
      ? expect("system", "B", "System and version", `${profile.name} ${image.version}`, {
          kind: "system",
          ...profile.identify,
        })
      : []),
    ...expect("mode", "C", "Boot mode", modeWords(sheet.boot.mode), fact("firmware.mode", sheet.boot.mode)),
    ...(target
      ? expect("target", "D", "System drive", driveName(target), { kind: "target", drive: target.id })
      : []),
    ...untouched,
    ...(port ? expect("port", "E", "Management port", port.mac, { kind: "port", mac: port.mac }) : []),
    ...expect("address", "E", "Address", fixed && length !== null ? `${fixed}/${length}` : fixed, {
      kind: "address",
      address: fixed,
      prefixLength: length,
    }),
    ...expect(
      "gateway",
      "E",
      "Gateway",
      network.school === "fixed" ? network.gateway : "",
      fact("system.gateway", network.gateway),
    ),
    ...expect(
      "name-servers",
      "E",
      "Name servers",
      network.school === "fixed" ? network.nameServers.join(", ") : "",
      { kind: "name servers", all: network.nameServers },
    ),
    ...expect("host-name", "F", "Host name", full, { kind: "host name", name: answers.hostName, full }),
    ...expect("time-zone", "F", "Time zone", answers.timeZone, fact("system.timeZone", answers.timeZone)),
    ...expect("locale", "F", "Locale", answers.locale, fact("system.locale", answers.locale)),
    ...expect("keyboard", "F", "Keyboard", answers.keyboard, fact("system.keyboard", answers.keyboard)),
  ];
}
