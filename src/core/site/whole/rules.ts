import { evidence, hit, rulesOver, type Check } from "../../finding";
import { addressText } from "../../network";
import { headOf, type Ledger, type SiteClaim, type Stretch } from "./ledger";
import { SITE_MESSAGES } from "./messages.en";

/** What a rule of the whole site looks at: the claims about one thing, and the stretches of the site. */
export interface Topic {
  claims: readonly SiteClaim[];
  ledger: Ledger;
}

type SiteRule = Check<Topic>;
const rule = rulesOver<Topic, string>()("E", SITE_MESSAGES);

const rest = (claim: SiteClaim): string => headOf(claim.key).rest;

/** Who holds a claim, as people say it: the thing that it is about, where it is the site's. */
const holderOf = (claim: SiteClaim): string =>
  claim.kind === "thing"
    ? rest(claim)
    : claim.kind === "reservation"
      ? `the reservation for ${headOf(rest(claim)).rest}`
      : claim.name;

/** One for each machine or thing: a machine and the sheet for it are one. */
const apart = (claims: readonly SiteClaim[]): SiteClaim[] => [
  ...new Map(
    claims.map((c) => [c.machineId ?? (c.owner === "build" ? c.ownerId : `${c.kind} ${c.key}`), c]),
  ).values(),
];

const shown = (claims: readonly SiteClaim[], value: string) =>
  claims.map((c) => evidence(holderOf(c), value, c.owner === "build" ? "sheet" : c.owner));

const within = (key: string, { first, last }: Stretch): boolean => key >= first && key <= last;

/** Claims of an address that somebody set: what a machine was found to have may have been lent to it. */
const isPlanned = (c: SiteClaim): boolean =>
  c.kind === "thing" || (c.kind === "address" && c.owner === "build");

const keyOf = (claims: readonly SiteClaim[]): string => headOf(claims[0]?.key ?? "").head;

const ADDRESS_RULES: readonly SiteRule[] = [
  rule("site.address-twice", ({ claims, ledger }) => {
    const key = keyOf(claims);
    const isOurs = ledger.prefixes.some((p) => !p.claim.elsewhere && within(key, p));
    // Bridges inside machines have the same address everywhere; only what lies in a network of the site can clash.
    const holders = apart(claims.filter((c) => c.kind !== "reservation" && (isOurs || isPlanned(c))));
    const address = addressText(key);
    return holders.length > 1
      ? hit(
          "stop",
          "address",
          { address, holders: holders.map(holderOf).join(" and ") },
          ...shown(holders, address),
        )
      : null;
  }),
  rule("site.address-outside", ({ claims, ledger }) => {
    const key = keyOf(claims);
    const planned = claims.find((c) => isPlanned(c) || c.kind === "reservation");
    const own = ledger.prefixes.filter((p) => !p.claim.elsewhere);
    const address = addressText(key);
    return planned && !own.some((p) => within(key, p))
      ? hit(
          "caution",
          "address",
          { address, holder: holderOf(planned) },
          evidence(holderOf(planned), address, "plan"),
          evidence("networks", own.map((p) => p.words).join(", ") || "none", "site"),
        )
      : null;
  }),
  rule("site.address-in-range", ({ claims, ledger }) => {
    const key = keyOf(claims);
    const planned = claims.find(isPlanned);
    const range = ledger.ranges.find((r) => within(key, r));
    const address = addressText(key);
    return planned && range && !claims.some((c) => c.kind === "reservation")
      ? hit(
          "stop",
          "address",
          { address, holder: holderOf(planned), segment: range.words },
          evidence(holderOf(planned), address, "plan"),
          evidence("DHCP range", `${addressText(range.first)} to ${addressText(range.last)}`, range.words),
        )
      : null;
  }),
];

const RESERVED_OTHERWISE = rule("site.reserved-otherwise", ({ claims, ledger }) => {
  const address = addressText(keyOf(claims));
  const machines = claims.filter((c) => c.kind === "address" && c.machineId !== null);
  return claims
    .filter((c) => c.kind === "reservation")
    .flatMap((reservation) => {
      const { head: mac, rest: name } = headOf(rest(reservation));
      const cards = (ledger.topics.get(`mac ${mac}`) ?? []).filter((c) => c.kind === "mac");
      const other = machines.find((m) => !cards.some((c) => c.machineId === m.machineId));
      return other
        ? hit(
            "stop",
            "reservation",
            { address, mac, name, holder: holderOf(other) },
            evidence("reservation", `${mac} ${name}`, "site"),
            evidence(holderOf(other), address, other.owner === "build" ? "sheet" : "machine"),
          )
        : [];
    });
});

/** Rules by the word with which their topics begin. */
const RULES = {
  address: [...ADDRESS_RULES, RESERVED_OTHERWISE],
  mac: [
    rule("site.mac-twice", ({ claims }) => {
      const holders = apart(claims.filter((c) => c.kind === "mac"));
      const mac = keyOf(holders);
      return holders.length > 1
        ? hit("stop", "mac", { mac, holders: holders.map(holderOf).join(" and ") }, ...shown(holders, mac))
        : null;
    }),
    rule("site.reservations", ({ claims, ledger }) => {
      const reserved = claims.filter((c) => c.kind === "reservation");
      const networks = reserved.map((c) =>
        ledger.prefixes.findIndex((p) => !p.claim.elsewhere && within(headOf(c.key).head, p)),
      );
      const twice = networks.some((n, i) => networks.indexOf(n) !== i);
      const mac = headOf(reserved[0] ? rest(reserved[0]) : "").head;
      const addresses = reserved.map((c) => addressText(headOf(c.key).head));
      return twice
        ? hit(
            "stop",
            "reservation",
            { mac, addresses: addresses.join(", ") },
            ...addresses.map((a) => evidence(mac, a, "reservation")),
          )
        : null;
    }),
  ],
  name: [
    rule("site.name-twice", ({ claims }) => {
      const holders = apart(claims);
      const { key: name } = claims[0]!;
      return holders.length > 1
        ? hit("stop", "name", { name, holders: holders.map(holderOf).join(" and ") }, ...shown(holders, name))
        : null;
    }),
  ],
  "switch port": [
    rule("site.port-twice", ({ claims }) => {
      const port = headOf(rest(claims[0]!)).rest;
      return claims.length > 1
        ? hit(
            "stop",
            "cable",
            { port, count: String(claims.length) },
            ...claims.map((c) => evidence("cable", headOf(rest(c)).head, "site")),
          )
        : null;
    }),
  ],
  vlan: [
    rule("site.vlan-twice", ({ claims }) => {
      const names = claims.map((c) => headOf(rest(c)).rest);
      const vlan = String(Number(keyOf(claims)));
      return claims.length > 1
        ? hit(
            "caution",
            "vlan",
            { vlan, segments: names.join(" and ") },
            ...names.map((n) => evidence(n, `VLAN ${vlan}`, "site")),
          )
        : null;
    }),
  ],
  "default log-in": [
    rule("site.default-log-in", ({ claims }) => {
      const { key: device } = claims[0]!;
      return hit("caution", "device", { device }, evidence(device, "factory login", "site"));
    }),
  ],
} satisfies Record<string, readonly SiteRule[]>;

/** The rules about a kind of topic, and how many claims of one thing it takes for any of them to speak. */
export interface TopicRules {
  least: number;
  rules: readonly SiteRule[];
}

/** By the first word of a topic. Most MACs and names are held once: nothing is asked of those. */
export const SITE_RULES: ReadonlyMap<string, TopicRules> = new Map([
  ["address", { least: 1, rules: RULES.address }],
  ["mac", { least: 2, rules: RULES.mac }],
  ["name", { least: 2, rules: RULES.name }],
  ["switch", { least: 2, rules: RULES["switch port"] }],
  ["vlan", { least: 2, rules: RULES.vlan }],
  ["default", { least: 1, rules: RULES["default log-in"] }],
]);

const stretchWords = ({ first, last, words, claim }: Stretch): string =>
  `${words}${claim.elsewhere ? ` of ${claim.name}` : ""} (${addressText(first)} to ${addressText(last)})`;

/** Pairs of stretches that overlap, at least one of them of this site. */
function overlaps(stretches: readonly Stretch[]): [Stretch, Stretch][] {
  const sorted = [...stretches].sort((a, b) => (a.first < b.first ? -1 : a.first > b.first ? 1 : 0));
  return sorted.flatMap((a, i) => {
    const pairs: [Stretch, Stretch][] = [];
    for (const b of sorted.slice(i + 1)) {
      if (b.first > a.last) break;
      if (!a.claim.elsewhere || !b.claim.elsewhere) pairs.push([a, b]);
    }
    return pairs;
  });
}

const stretchRule = (
  code: "site.prefix-overlap" | "site.range-overlap",
  of: "prefixes" | "ranges",
): SiteRule =>
  rule(code, ({ ledger }) =>
    overlaps(ledger[of]).map(([a, b]) => ({
      ...hit(
        a.claim.elsewhere || b.claim.elsewhere ? "caution" : "stop",
        of,
        { first: stretchWords(a), second: stretchWords(b) },
        evidence(a.words, `${addressText(a.first)} to ${addressText(a.last)}`, a.claim.name),
        evidence(b.words, `${addressText(b.first)} to ${addressText(b.last)}`, b.claim.name),
      ),
      subject: `${a.first} ${b.first} ${b.words}`,
    })),
  );

/** Rules about the stretches themselves; they look at no topic. */
export const STRETCH_RULES: readonly SiteRule[] = [
  stretchRule("site.prefix-overlap", "prefixes"),
  stretchRule("site.range-overlap", "ranges"),
];
