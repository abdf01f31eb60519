import type { Leg, Screen } from "../../image";
import type { Effect } from "../../work";
import { drivesOfWork, targetsOf, type StorageGround } from "../../storage";
import type { AnswersSlice } from "../slice";

/** What the effects of a screen are told from. */
export interface EffectGround extends StorageGround {
  sheet: StorageGround["sheet"] & {
    answers: AnswersSlice;
    network: { port: string | null; school: string; address: string };
  };
}

/** The drives that a screen works on, by their ids. */
function driveEffects(plan: EffectGround, { drive, destroys }: Screen): Effect[] {
  const target = targetsOf(plan).map((t) => t.drive.id);
  if (drive === "chooses") return [{ do: "choose drives", drives: target }];
  if (drive === "writes") return [{ do: "write drives", drives: target, erases: destroys, of: "target" }];
  if (drive === "none") return [];
  const free = drivesOfWork(plan, drive);
  return free.length === 0
    ? []
    : [{ do: "write drives", drives: free.map((d) => d.id), erases: true, of: "free" }];
}

/**
 * What is set by typing: a field that takes the name or the address itself. One that names it inside something longer (a
 * page to open, a log-in) uses it and sets nothing.
 */
function typedEffects({ sheet }: EffectGround, screen: Screen): Effect[] {
  const { answers, network } = sheet;
  const full = [answers.hostName, answers.domain].filter(Boolean).join(".");
  return screen.type.flatMap(({ value }): Effect[] => {
    if (value === "{host.name}") return [{ do: "set name", name: answers.hostName }];
    if (value === "{host.fqdn}") return [{ do: "set name", name: full }];
    if (!/^\{host\.address\}(\/\{host\.prefix\})?$/.test(value)) return [];
    const { port: mac, school, address } = network;
    return [{ do: "set address", mac, school, address }];
  });
}

/** What a screen of an installer, or a piece of first-boot work, does to the machine. */
export function screenEffects(plan: EffectGround, leg: Leg, screen: Screen, zone: "H" | "I"): Effect[] {
  // A wait that reads all of the image is one that loads the installer; a later one ends with a system on the target.
  const login = leg.profile.defaultLogins.find((l) => l.changedOn === screen.id);
  const installs = screen.wait && zone === "H" && screen.readsShare < 1;
  return [
    ...driveEffects(plan, screen),
    ...typedEffects(plan, screen),
    ...(login ? [{ do: "change log-in" as const, name: login.name, opens: login.opens }] : []),
    ...(installs
      ? [{ do: "install system" as const, profile: leg.profile.profile, version: leg.version }]
      : []),
  ];
}
