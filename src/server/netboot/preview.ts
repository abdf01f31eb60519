import { leftBehind, parametersOf, type LeftBehind } from "@/core/answers";
import { firstBootScript, ipxeInstall } from "@/core/netboot";
import type { InForce } from "@/core/parameter";
import type { Desk } from "../desk";
import { readEnvironment } from "../environment";
import { withoutHashes } from "../scripts";
import { masked } from "../seals";
import { namedAnswers, planOf } from "./answers";
import type { ArmingOffer } from "./offer";
import { filesAt, readyWhen, titleOf } from "./told";

/** All that a machine will be given, with every condition resolved and no secret in it. */
export interface ArmingPreview {
  parameters: InForce[];
  /** What the installation leaves hidden or open. */
  left: LeftBehind[];
  /** Texts by the name under which they are asked for. */
  texts: { name: string; text: string }[];
}

/** Where the token stands that a machine is given when it asks. */
const TOKEN = "TOKEN";

/** What the machine of an offer will be given; null where the sheet cannot be written any more. */
export async function armingPreview(
  desk: Desk,
  buildId: string,
  { arming }: ArmingOffer,
): Promise<ArmingPreview | null> {
  const plan = await planOf(desk, buildId);
  const base = readEnvironment().DERRICK_BOOT_URL ?? "";
  if (!plan) return null;
  const at = `${base}/t/${TOKEN}/`;
  const report = `${at}report/`;
  const answers = await namedAnswers(desk, plan, buildId, { script: `${at}first-boot`, report }, masked);
  if (!answers.ok) return null;
  const { files, firstStart, secrets } = answers.value;
  return {
    parameters: parametersOf(plan),
    left: leftBehind(plan),
    texts: [
      { name: "boot script", text: ipxeInstall(filesAt(at, arming), titleOf(arming)) },
      ...files.map(({ name, text }) => ({ name, text: withoutHashes(text) })),
      {
        name: "first-boot script",
        text: firstBootScript({ report, actions: firstStart, secrets, ready: readyWhen(base) }),
      },
    ],
  };
}
