import { stringify } from "yaml";
import { netplanTree, shellWord, type HostPlan } from "../../network";
import type { Gap, IntentPath, SystemIntent } from "../intent";
import { componentsOf } from "../software";
import { accountNotes } from "./accounts";
import { cloudKeyboard, cloudLogIn, cloudNames, cloudUser } from "./cloud-user";
import { linesFrom, type AnswerFile, type AnswerLine } from "./line";

const lines = (from: IntentPath | null, tree: object): AnswerLine[] =>
  linesFrom(from, ...stringify(tree, { lineWidth: 0 }).trimEnd().split("\n"));

/**
 * What a machine is known by to cloud-init. It stays the same for as long as the machine has its name: another one would
 * make everything run again, and give the machine new host keys.
 */
export const metaData = ({ hostName, domain }: SystemIntent): AnswerFile => ({
  name: `${hostName}.meta-data`,
  lines: lines("answers.hostName", {
    "instance-id": [hostName, domain].filter(Boolean).join("."),
    "local-hostname": hostName,
  }),
  byHand: [],
});

/** It is asked for beside the other two, and where it is missing it is asked for again and again. */
export const vendorData = ({ hostName }: SystemIntent): AnswerFile => ({
  name: `${hostName}.vendor-data`,
  lines: [],
  byHand: [],
});

/**
 * A family with a list of locales to be made makes no other one, and its cloud-init then fails at setting it (seen with 22.4):
 * what is planned is put on that list before. Without such a list nothing is to be done.
 */
const localeFirst = (locale: string): string =>
  `l=${shellWord(locale)}; f=/etc/locale.gen; [ ! -e $f ] || grep -q "^$l " $f || grep "^$l " /usr/share/i18n/SUPPORTED >> $f`;

/** The seed of an image that is installed already: user data, meta data, and the network in version 2 of its format. */
export function writeCloudSeed(intent: SystemIntent & { network: HostPlan }): AnswerFile[] {
  const { system, hostName, domain, accounts } = intent;
  const { services, finish } = intent.software;
  const { groups, packages } = componentsOf(intent.software.components);
  const allow = accounts.some((a) => a.logIn === "password" && a.role !== "service");
  const userData: AnswerFile = {
    name: `${hostName}.user-data`,
    lines: [
      ...linesFrom(
        null,
        "#cloud-config",
        `# ${system.name} ${system.version} on ${hostName}, written by Derrick from its build sheet, for an image that is installed already.`,
      ),
      ...lines("answers.hostName", cloudNames(hostName, domain)),
      ...lines("answers.locale", {
        ...{ bootcmd: [["sh", "-c", localeFirst(intent.locale)]], locale: intent.locale },
      }),
      ...lines("answers.keyboard", { keyboard: cloudKeyboard(intent.keyboard) }),
      ...lines("answers.timeZone", { timezone: intent.timeZone }),
      ...(packages.length > 0 ? lines("answers.components", { packages }) : []),
      ...(services.length + finish.length > 0
        ? lines(services.length > 0 ? "answers.services" : "answers.finish", {
            runcmd: [
              ...services.map((s) => ["systemctl", "enable", "--now", s]),
              ...finish.map((command) => ["sh", "-c", command]),
            ],
          })
        : []),
      ...lines("answers.accounts", {
        ssh_pwauth: allow,
        ...cloudLogIn(accounts),
        users: accounts.map((a) => cloudUser(a, system.adminGroup)),
      }),
    ],
    byHand: [
      ...accounts.flatMap((a) => accountNotes(a, "by an administrator who can log in", !allow)),
      ...groups.map((group): Gap => ({
        path: "answers.components",
        message: `add the group ${group} once the system runs: this format supports packages only`,
      })),
      ...(["source", "proxy"] as const).flatMap((key): Gap[] =>
        intent.software[key] === ""
          ? []
          : [
              {
                path: `answers.${key}`,
                message: "set it once the system runs: an image has its own sources",
              },
            ],
      ),
    ],
  };
  const network: AnswerFile = {
    name: `${hostName}.network-config`,
    lines: lines("network.address", netplanTree(intent.network, "keys").network),
    byHand: intent.network.links.flatMap((l): Gap[] =>
      l.kind === "bridge" && l.vlanAware
        ? [
            {
              path: "network.interfaces",
              message: `bridge ${l.name}: enable VLAN filtering once the system runs: this format does not support it`,
            },
          ]
        : [],
    ),
  };
  return [userData, metaData(intent), network];
}
