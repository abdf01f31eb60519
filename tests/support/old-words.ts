/**
 * Words that Derrick once showed and that nobody in the field uses so, each with the term that people know. A word that
 * has a usual meaning of its own too ("read", "fixed", "group") is refused only in the phrase that was Derrick's.
 */
export const OLD_WORDS: readonly (readonly [old: RegExp, term: string])[] = [
  [/\b(the|a|this|which|no|every|by) roads?\b|\broads?$/i, "installation method"],
  [/\b(first|last|next|each|every|all|the) legs?\b/i, "upgrade step"],
  [/\bstepping stones?\b/i, "intermediate version"],
  [/\bways? to the machine\b|\bthis way (is|starts)\b/i, "boot source"],
  [/\bhands are needed\b|\bwithout you\b|\bhands[- ]on time\b/i, "action needed, attended time"],
  [/\blate since\b|\bover, and not done\b/i, "overdue"],
  [/\bdrop well\b|\bdrawer\b|\bin the chest\b/i, "drop area, menu section"],
  [/\bin the margin\b|\btitle block\b/i, "findings panel, footer bar"],
  [/\bhangs? at\b|\bhook\b/i, "next stage"],
  [/\btwin of\b|\bmake a twin\b/i, "duplicate"],
  [/\bschools?\b/i, "boot device type, address assignment, RAID implementation"],
  [/\bcures?d?\b/i, "suggested fix"],
  [/\bset aside\b/i, "waive, quarantine"],
  [/\bgiven for\b/i, "scope"],
  [/\bconsents?( to| for|ed)?\b|\bagreed? to\b/i, "erase confirmation, confirm"],
  [/\b(take|took|taken) back\b/i, "undo, revoke"],
  [/\b(take|took|taken|takes) over\b/i, "import, apply"],
  [/\bwrite (it )?down\b|\bput (it )?on the log\b/i, "record, add to log"],
  [/\bnarrow(ed)? (by|to)\b|\bcarries these words\b/i, "filter, matches"],
  [
    /\bdates coming\b|\bin its way\b|\bit is becoming\b|\bthe matter with\b/i,
    "upcoming, blocked by, planned build, issues",
  ],
  [/\bstands? at\b|\bstands? (there|here|by|beside|on|in|with)\b|\bstanding by\b/i, "is, reports, hot spare"],
  [/\bnobody\b|\bsomebody\b|\bwhoever\b|\bwhichever\b/i, "the name of what is missing"],
  [
    /\bnot told\b|\btools? (tells?|told)\b|\btells? (of|that|how|which|what|nothing)\b/i,
    "not reported, reports",
  ],
  [/\bledgers?\b|\bbench readings?\b/i, "erasure records, measurements"],
  [
    /\bmake it mine\b|\bset-up pages?\b|\bstarts in\b|\bkey of the boot menu\b/i,
    "duplicate and edit, firmware setup, boot modes, boot menu key",
  ],
  [
    /\bmedia first for good\b|\blist of the firmware\b|\blead nowhere\b|\bover a cable\b/i,
    "first in the permanent boot order, boot entries, stale boot entries",
  ],
  [
    /\bleave alone\b|\bleft alone\b|\btail of the serial\b/i,
    "protected, last 6 characters of the serial number",
  ],
  [
    /\bto scale\b|\bspinning\b|\bshingled tracks\b|\bplain tracks\b|\bpasses drives through\b|\bhost adapters?\b/i,
    "capacity, HDD, SMR, CMR, pass-through (HBA) mode, host bus adapter",
  ],
  [
    /^leave free$|^kept by$|\bkeepers?\b|\bmay fail\b|\bmay still fail\b|\bfail in a year\b/i,
    "unused drives, RAID implementation, fault tolerance, annual failure rate",
  ],
  [
    /^replaced within\b|\bof one batch fail\b|\bfrom raw to usable\b|\blost to\b|\brounds to\b/i,
    "replacement time, correlated failures, capacity breakdown, overhead",
  ],
  [
    /\bpromised\b|\bmade whole\b|\bnot whole\b|\beverything stands\b/i,
    "provisioned, rebuilding, degraded, healthy",
  ],
  [/\bdescribes the data\b|\bwrites that somebody\b/i, "special device, log device"],
  [
    /\bsegments?\b|\blent by\b|\bname servers?\b|\bfixed address(es)?\b/i,
    "network, DHCP lease, DNS servers, static address",
  ],
  [
    /\bspread by\b|\bsimply on\b|\bdoors?\b|\bgives power over\b|\bold state comes back\b/i,
    "transmit hash policy, static LAG, access check, externally reachable service, management access, automatic rollback",
  ],
  [
    /\bno machines\b|\bcame with\b|\busual answers\b|\blaid down\b|\blays? down\b|\bsuper-user\b/i,
    "other devices, default credentials, site defaults, defined, superuser",
  ],
  [
    /\blog-ins?\b|\bit opens\b|\bhow long it stands\b|\bseal(s|ed|ing)?\b/i,
    "login, account, strength, stored encrypted",
  ],
  [
    /\bkeys are sent by\b|\binstaller takes them\b|\bgoes before\b|\bstill to be gathered\b|\bwhat will be asked\b/i,
    "keyboard layout, overrides, missing answers",
  ],
  [
    /\bby hand\b|\bsettle in\b|\brehears(e|al)\b|\bread back\b|\btake it as it is\b|\bby eye\b|\bto put back\b/i,
    "manual, first-boot tasks, dry run, verify, accept the deviation, confirmed by inspection, to revert",
  ],
  [
    /\bthree in the morning\b|\blet in\b|\bstrangers?\b|\bcall(ed)? off\b|\barm anew\b|\banew\b|\bwhat is lost\b/i,
    "on-call notes, accepted, cancel, again, data that will be erased",
  ],
  [
    /\bwords of the kernel\b|\bcheck sums?\b|\btwice alike\b|\bof one name\b/i,
    "kernel command line, checksum, duplicate",
  ],
  [/\bfrom afar\b|\bafar\b|\bmend(s|ed|ing)?\b|\bbeside\b/i, "remote, repair, next to"],
  [
    /\bwithout a word\b|\bin silence\b|\btelephones?\b|\bone day\b|\bone night\b/i,
    "the technical consequence",
  ],
  [/\bcautions?\b/i, "warning"],
];

/** Texts with such a word that stay, each with its reason. */
export const EXCEPTIONS: readonly (readonly [text: RegExp, reason: string])[] = [
  [
    /^(stop|caution|leave alone|not told|fixed address|changes by hand|by hand)$/,
    "stored; shown through terms.ts",
  ],
  [
    /^(default log-in|change log-in|stick read back|read back|name servers?|host adapter|door)$/,
    "a kind in stored data",
  ],
  [/^(nobody: stale|nobody answers|no segment|segment (name|prefix)|#?beside)$/, "a key inside the code"],
  [/^(set aside|agree to erase|take back)$/, "an act of the API"],
  [/^(kept by|not kept by) (a |this |fresh |in-place |conversion)/i, "a participle, not the old label"],
  [/^super-user(\.key)? = /, "a key word of the answer file of a made-up hypervisor"],
  [/^belowdot acute grave hook$/, "names of diacritical marks"],
  [/^audible through the door$/, "the door of a room"],
];
