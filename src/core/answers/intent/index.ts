import { hostPlan, writeCommands } from "../../network";
import type { Drawn, Gap, Hashes, InstallIntent, IntentGround, ScriptIntent } from "./shapes";
import { systemIntent } from "./system";
import { targetIntent } from "./target";

export type * from "./shapes";
export { systemIntent } from "./system";

const gapsIn = (...drawn: readonly Drawn<object>[]): Gap[] => drawn.flatMap((d) => (d.ok ? [] : d.gaps));

const networkGaps = (problems: readonly { message: string }[]): Gap[] =>
  problems.map(({ message }) => ({ path: "network.port", message }));

/** Draws the intent from a build; where something is still open, all that is open and nothing else. */
export function installIntent(
  ground: IntentGround,
  hashes: Hashes = new Map(),
  restarts = false,
): Drawn<InstallIntent> {
  const { hostName, domain } = ground.sheet.answers;
  const network = hostPlan(ground, { hostName, domain });
  const target = targetIntent(ground, "by the file");
  const system = systemIntent(ground, hashes);
  if (!network.ok || !target.ok || !system.ok)
    return {
      ok: false,
      gaps: [...gapsIn(target, system), ...(network.ok ? [] : networkGaps(network.problems))],
    };
  return { ok: true, intent: { ...system.intent, ...target.intent, network: network.value, restarts } };
}

/** The port that a machine is managed by, by its MAC, with its address; or what is open about it. */
function managementPort(ground: IntentGround): Drawn<ScriptIntent["port"]> {
  const { hostName, domain } = ground.sheet.answers;
  // An interface that carries the address is made by the lines of the tool: the installer needs no more than the port.
  const network = { ...ground.sheet.network, interfaces: [], carrier: null };
  const plan = hostPlan({ ...ground, sheet: { ...ground.sheet, network } }, { hostName, domain });
  const [link] = plan.ok ? plan.value.links : [];
  return link?.kind === "port" && link.address
    ? { ok: true, intent: { mac: link.mac, address: link.address } }
    : {
        ok: false,
        gaps: networkGaps(plan.ok ? [{ message: "the port is not a port of the machine" }] : plan.problems),
      };
}

/** The same for an installer that takes a file in words of its own, which cuts its drives by itself. */
export function scriptIntent(ground: IntentGround, hashes: Hashes = new Map()): Drawn<ScriptIntent> {
  const [target, system] = [targetIntent(ground, "by the installer"), systemIntent(ground, hashes)];
  const port = managementPort(ground);
  const told = ground.profile ? writeCommands(ground, ground.profile.network) : null;
  const commands = told?.ok ? told.value.lines : [];
  if (!target.ok || !system.ok || !port.ok || (told && !told.ok))
    return {
      ok: false,
      gaps: [...gapsIn(target, system, port), ...(told && !told.ok ? networkGaps(told.problems) : [])],
    };
  const problems = told?.ok ? told.value.problems : [];
  const beside = [
    ...target.intent.beside,
    ...problems.map(({ message }): Gap => ({ path: "network.interfaces", message })),
  ];
  return {
    ok: true,
    intent: {
      ...{ ...system.intent, ...target.intent, beside, port: port.intent, commands },
      hasInterfaces: ground.sheet.network.interfaces.length > 0,
    },
  };
}
