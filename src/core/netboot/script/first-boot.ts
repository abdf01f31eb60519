import { shellWord } from "../../network";
import { trusting } from "./trust";
import { UNIT } from "./unit";

/** What the first start waits for, and what it does then; each is asked for, and done once. */
export interface FirstBoot {
  /** Where it tells how far it is: the stage is put behind it. */
  report: string;
  /** Commands of a shell, in their order. */
  actions: readonly string[];
  /** The public key that it believes where it tells over HTTPS; "" over plain http. */
  pin?: string;
  /** Programs whose answer tells that the system is ready; asked for until they succeed. */
  ready: readonly string[];
  /** What was sealed and given to this installation; none of it stays in what the installer leaves behind. */
  secrets: readonly string[];
}

/** So often, and with such a pause, readiness is asked for before the machine says that it was never reached. */
const [ASKS, PAUSE_SECONDS] = [60, 5];

const HEAD = String.raw`
set -u
root=${"$"}{ROOT:-}
marks=$root/var/lib/derrick
log=$root/var/log/derrick-first-boot.log
mkdir -p "$marks"
(umask 077 && : >> "$log")
exec >> "$log" 2>&1

say() {
  printf '%s %s\n' "$(date -u +%Y-%m-%dT%H:%M:%SZ)" "$*"
}

# forget: no line that holds a secret stays in what the installer and this script have left behind.
forget() {
  for place in /var/log /var/lib/cloud /run/cloud-init /root/anaconda-ks.cfg /root/original-ks.cfg /root/derrick-finish.log /autoinstall.yaml; do
    [ -e "$root$place" ] || continue
    secrets | grep -rlF -f - "$root$place" 2>/dev/null | while read -r found; do
      # What is no text, such as a journal, is not cut apart.
      if [ "$(tr -d '\000' < "$found" | wc -c)" -ne "$(wc -c < "$found")" ]; then
        say "a secret stays in $found, which is no text: remove it by hand"
        continue
      fi
      kept=$(mktemp)
      secrets | LC_ALL=C grep -vF -f - "$found" > "$kept" || :
      cat "$kept" > "$found"
      rm -f "$kept"
      say "secrets were taken out of $found"
    done
  done
}

# It runs once, whatever comes of it: what it was given does not stay on the machine.
leave() {
  cd /
  systemctl disable ${UNIT} > /dev/null 2>&1
  rm -f "$root/etc/systemd/system/${UNIT}"
  forget
  rm -rf "$marks"
  rm -f "$0"
  systemctl daemon-reload > /dev/null 2>&1
  say "this script has removed itself"
}
trap leave EXIT

# tell STAGE WORDS: a report that does not arrive is told again by the next one, and stops nothing.
tell() {
  say "told: $1 $2"
  if command -v curl > /dev/null 2>&1; then
    curl -fsS $curl_trusts -m 20 --retry 3 --data-urlencode "words=$2" "$report$1" > /dev/null || say "the report $1 did not arrive"
  else
    timeout 20 wget -q $wget_trusts -O /dev/null --post-data "words=$(printf '%s' "$2" | tr -c 'A-Za-z0-9.\n-' '+')" "$report$1" || say "the report $1 did not arrive"
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

/** So often a command is put inside the quotes of another one between a sheet and the log of an installer. */
const MOST_QUOTES = 4;

/** A secret as it may stand in a file: as it is, inside words of a shell inside each other, and inside quotes of JSON or YAML. */
function formsOf(secret: string): string[] {
  const forms = [secret];
  for (let i = 0; i < MOST_QUOTES; i += 1) forms.push(forms.at(-1)!.replaceAll("'", `'\\''`));
  // In the late command of a preseed file a backslash before an n stands in quotes of its own.
  const stored = forms.map((form) => form.replaceAll("\\n", "\\''n"));
  return [...forms, ...stored, JSON.stringify(secret).slice(1, -1)];
}

/** The token in an address; it opens nothing any more, and says where Derrick is. */
const tokenOf = (report: string): string[] => /\/t\/([\w-]{16,})\//.exec(report)?.slice(1) ?? [];

/**
 * The script of the first start: it waits by asking, does each action once, keeps a log, and reports. It opens no shell and hides
 * no warning. After a cut in its middle it goes on at the next start; at its end it removes itself, and what it was given.
 */
export const firstBootScript = ({ report, actions, ready, secrets, pin = "" }: FirstBoot): string =>
  [
    "#!/bin/sh",
    "# Written by Derrick from the build sheet; it can be run again, repeats nothing, and removes itself at its end.",
    `report=${shellWord(report)}`,
    `curl_trusts=${shellWord(trusting(pin).curl.trim())}`,
    `wget_trusts=${shellWord(trusting(pin).wget.trim())}`,
    "",
    "secrets() {",
    "  printf '%s\\n' \\",
    [...new Set([...secrets, ...tokenOf(report)].filter(Boolean).flatMap(formsOf))]
      .map((form) => `    ${shellWord(form)}`)
      .join(" \\\n"),
    "}",
    "",
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
