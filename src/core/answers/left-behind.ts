/** What looks at the commands of a sheet, and at what it opens. */
export interface CommandGround {
  sheet: {
    answers: { finish: readonly string[]; firstStart: readonly string[]; services: readonly string[] };
    network: { services: readonly { name: string; port: number; until: string | null }[] };
  };
  profile: { management: { kind: string } } | null;
}

const commandsIn = ({ sheet: { answers } }: CommandGround): string[] => [
  ...answers.finish,
  ...answers.firstStart,
];

/** A pause of so long, whatever has happened meanwhile; one in a loop that asks is none. */
const PAUSE = /(?:^|[\s;&|(])sleep\s+\d[\d.]*[smhd]?(?=$|[\s;&|)])/;
const LOOP = /(?:^|[\s;&|(])(?:until|while|for)\s/;

/** Commands that wait for a fixed time instead of asking whether what they wait for is there. */
export const fixedWaits = (ground: CommandGround): string[] =>
  commandsIn(ground).filter((command) => PAUSE.test(command) && !LOOP.test(command));

/** What throws away what a program complains of, or goes on as if it had not. */
const HIDES =
  /(?:2|&)>\s*\/dev\/null|>\s*\/dev\/null\s+2>&1|\|\|\s*(?:true|:)(?=$|[\s;)])|(?:^|[\s;])set \+e\b|suppress\w*[- ]?warn|--no-warn/i;
const SHELLS = /\b(?:ssh|sshd|telnet|telnetd|rlogin|dropbear|shell)\b/i;
const SWITCHES = /\b(?:enable|start|on|permit|allow|open)\b/i;
const SHELL_PORTS = [22, 23];

/** What is left behind by the commands of a sheet: a warning that nobody sees any more, or a shell that stays open. */
export interface LeftBehind {
  kind: "hidden warning" | "opened shell";
  what: string;
  /** The day on which it ends; null where nobody has set one. */
  until: string | null;
}

/**
 * Warnings that are hidden by the commands of a sheet, and shells that it opens on a system which is not managed by one. A shell
 * ends on the day that its service has on the sheet; a hidden warning has no end but the command's own.
 */
export function leftBehind(ground: CommandGround): LeftBehind[] {
  const { services } = ground.sheet.network;
  const until = services.find((s) => SHELL_PORTS.includes(s.port) || SHELLS.test(s.name))?.until ?? null;
  const managedByShell = ground.profile?.management.kind === "remote shell";
  const opening = managedByShell
    ? []
    : [
        ...ground.sheet.answers.services.filter((s) => SHELLS.test(s)),
        ...commandsIn(ground).filter((c) => SHELLS.test(c) && SWITCHES.test(c)),
      ];
  return [
    ...commandsIn(ground)
      .filter((c) => HIDES.test(c))
      .map((what): LeftBehind => ({ kind: "hidden warning", what, until: null })),
    ...opening.map((what): LeftBehind => ({ kind: "opened shell", what, until })),
  ];
}
