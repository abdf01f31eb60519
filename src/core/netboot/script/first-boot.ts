import { shellWord } from "../../network";

/** What the first start waits for, and what it does then; each is asked for, and done once. */
export interface FirstBoot {
  /** Where it tells how far it is: the stage is put behind it. */
  report: string;
  /** Commands of a shell, in their order. */
  actions: readonly string[];
  /** Programs whose answer tells that the system is ready; asked for until they succeed. */
  ready: readonly string[];
}

/** So often, and with such a pause, readiness is asked for before the machine says that it was never reached. */
const [ASKS, PAUSE_SECONDS] = [60, 5];

const HEAD = String.raw`
set -u
marks=/var/lib/derrick
log=/var/log/derrick-first-boot.log
mkdir -p "$marks"
exec >> "$log" 2>&1

say() {
  printf '%s %s\n' "$(date -u +%Y-%m-%dT%H:%M:%SZ)" "$*"
}

# tell STAGE WORDS: a report that does not arrive is told again by the next one, and stops nothing.
tell() {
  say "told: $1 $2"
  if command -v curl > /dev/null 2>&1; then
    curl -fsS -m 20 --retry 3 --data-urlencode "words=$2" "$report$1" > /dev/null || say "the report $1 did not arrive"
  else
    timeout 20 wget -q -O /dev/null --post-data "words=$(printf '%s' "$2" | tr -c 'A-Za-z0-9.\n-' '+')" "$report$1" || say "the report $1 did not arrive"
  fi
}

# until_ready WHAT COMMAND...: asks and never merely waits.
until_ready() {
  what=$1
  shift
  asked=0
  until "$@" > /dev/null 2>&1; do
    asked=$((asked + 1))
    if [ "$asked" -ge ${ASKS} ]; then
      say "not ready: $what"
      tell failed "not ready: $what"
      exit 1
    fi
    sleep ${PAUSE_SECONDS}
  done
  say "ready: $what"
}

# once NUMBER COMMAND: not done again when this script runs again.
once() {
  if [ -e "$marks/$1" ]; then
    say "done before: $1"
    return 0
  fi
  say "begins: $1"
  if sh -c "$2"; then
    : > "$marks/$1"
    say "done: $1"
  else
    say "failed: $1"
    tell failed "action $1 of the first start failed; see $log"
    exit 1
  fi
}
`.trimStart();

/** The script of the first start: it waits by asking, does each action once, keeps a log, and reports. It opens no shell and hides no warning. */
export const firstBootScript = ({ report, actions, ready }: FirstBoot): string =>
  [
    "#!/bin/sh",
    "# Written by Derrick from the build sheet; it may be run again, and does nothing twice.",
    `report=${shellWord(report)}`,
    HEAD.trimEnd(),
    "",
    ...ready.map(
      (command, i) => `until_ready ${shellWord(`readiness ${i + 1}`)} sh -c ${shellWord(command)}`,
    ),
    "tell first-boot ''",
    ...actions.map((command, i) => `once ${i + 1} ${shellWord(command)}`),
    "tell 'done' ''",
    "",
  ].join("\n");
