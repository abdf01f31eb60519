import { own } from "../../text";

/** What a preseed file must hold to; each with the words of its breach. */
export const PRESEED_RULES = {
  line: "a line contains a control character, or the last line has no end",
  shape: "a line is neither a comment nor a question with its type and its answer",
  question: "unknown question",
  type: "the question has another type",
  boolean: "a boolean is neither true nor false",
  twice: "a question is answered twice",
  missing: "the installer would ask for it: the question is not answered",
  letter: "a drive is identified by its device name, which can change",
  unasked: "the answers that allow writing are outside the command that finds the drive",
  recipe:
    "a recipe part does not have minimum, priority, maximum and file system with settings up to a full stop",
} as const;
export type PreseedRule = keyof typeof PRESEED_RULES;

export interface PreseedFault {
  rule: PreseedRule;
  line: number;
}

/** Questions of the installer with their types, by its own templates. */
const QUESTIONS: Readonly<
  Record<string, "string" | "boolean" | "select" | "multiselect" | "password" | "note">
> = {
  "finish-install/reboot_in_progress": "note",
  "mirror/country": "string",
  "mirror/protocol": "select",
  "mirror/http/hostname": "string",
  "mirror/http/directory": "string",
  "mirror/http/proxy": "string",
  "mirror/https/hostname": "string",
  "mirror/https/directory": "string",
  "mirror/https/proxy": "string",
  "pkgsel/include": "string",
  "tasksel/first": "multiselect",
  "debian-installer/locale": "string",
  "keyboard-configuration/xkb-keymap": "select",
  "netcfg/choose_interface": "select",
  "netcfg/disable_autoconfig": "boolean",
  "netcfg/get_ipaddress": "string",
  "netcfg/get_netmask": "string",
  "netcfg/get_gateway": "string",
  "netcfg/no_default_route": "boolean",
  "netcfg/get_nameservers": "string",
  "netcfg/confirm_static": "boolean",
  "netcfg/get_hostname": "string",
  "netcfg/hostname": "string",
  "netcfg/get_domain": "string",
  "clock-setup/utc": "boolean",
  "time/zone": "string",
  "passwd/root-login": "boolean",
  "passwd/root-password-crypted": "password",
  "passwd/make-user": "boolean",
  "passwd/user-password-crypted": "password",
  "preseed/late_command": "string",
  "passwd/user-fullname": "string",
  "passwd/username": "string",
  "partman/early_command": "string",
  "partman-auto/method": "string",
  "partman-auto/disk": "string",
  "partman-auto/expert_recipe": "string",
  "partman-auto/choose_recipe": "select",
  "partman-partitioning/confirm_write_new_label": "boolean",
  "partman/choose_partition": "select",
  "partman/confirm": "boolean",
  "partman/confirm_nooverwrite": "boolean",
  "grub-installer/bootdev": "string",
};
const NEEDED = [
  "debian-installer/locale",
  "keyboard-configuration/xkb-keymap",
  "netcfg/get_hostname",
  "time/zone",
  "passwd/root-login",
];
/** Each of them alone can end in an erased drive, whichever it is. */
const WRITES =
  /^(?:partman-auto\/(?:method|disk|choose_recipe)|partman\/confirm|partman-(?:lvm|md)\/device_remove|partman-partitioning\/confirm)/;
const LETTER = /\/dev\/(?:[svh]d[a-z]|nvme\d|mmcblk\d)/;
const PART = /^(\d+) (\d+) (-1|\d+) (?:free|linux-swap|ext4|xfs)((?: \$?[a-z_]+\{ \S* ?\})+)$/;

const isRecipe = (value: string): boolean => {
  const [name, rest] = value.split(" :: ");
  if (!name || !rest || /\s/.test(name) || !rest.endsWith(" .")) return false;
  return rest
    .slice(0, -2)
    .split(" . ")
    .every((part) => {
      const [, least, , most] = PART.exec(part.replaceAll("{ }", "{  }")) ?? [];
      return least !== undefined && (most === "-1" || Number(most) >= Number(least));
    });
};

/** What is wrong with a preseed file, in the order of its lines. */
export function lintPreseed(text: string): PreseedFault[] {
  const faults: PreseedFault[] = [];
  const answered = new Set<string>();
  const lines = text.split("\n");
  lines.forEach((raw, i) => {
    const fault = (rule: PreseedRule): void => void faults.push({ rule, line: i + 1 });
    if (/[\x00-\x1f\x7f\u2028\u2029]/.test(raw)) fault("line");
    if (raw === "" || raw.startsWith("#")) return;
    const [, question = "", type = "", value = ""] =
      /^(?:d-i|tasksel) (\S+) ([a-z]+)(?: (.*))?$/.exec(raw) ?? [];
    if (question === "") return fault("shape");
    const wanted = own(QUESTIONS, question);
    if (!wanted) return fault("question");
    if (wanted !== type) fault("type");
    if (type === "boolean" && value !== "true" && value !== "false") fault("boolean");
    if (answered.has(question)) fault("twice");
    answered.add(question);
    // The store of the installer makes the end of a line of it.
    if (value.includes("\\n")) fault("line");
    if (LETTER.test(value)) fault("letter");
    if (WRITES.test(question)) fault("unasked");
    if (question === "partman-auto/expert_recipe" && !isRecipe(value)) fault("recipe");
  });
  if (text !== "" && !text.endsWith("\n")) faults.push({ rule: "line", line: lines.length });
  const missing = NEEDED.filter((q) => !answered.has(q)).map((): PreseedFault => ({
    rule: "missing",
    line: lines.length,
  }));
  return [...faults, ...missing];
}
