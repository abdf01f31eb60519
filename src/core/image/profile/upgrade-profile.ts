import { isBag } from "../../document";

type Bag = Readonly<Record<string, unknown>>;

/** What is no screen at all stays where it is, for the schema to refuse it at its place. */
const each = (list: unknown[], change: (one: Bag) => Bag): unknown[] =>
  list.map((one) => (isBag(one) ? change(one) : one));

const showsTarget = (screen: Bag): boolean =>
  /\{target\./.test(JSON.stringify([screen.title, screen.see, screen.type]));

/** A screen of schema 1 said only whether it erases; one that shows the target chooses it. */
const marked = (screen: Bag): Bag =>
  screen.destroys === true
    ? { ...screen, drive: "writes" }
    : showsTarget(screen)
      ? { ...screen, drive: "chooses" }
      : screen;

/** The screens of a jump: where none was marked, the last that chooses writes, else the one that is waited for, else the first. */
function jumpScreens(screens: unknown[]): unknown[] {
  const first = each(screens, marked);
  const find = (test: (screen: Bag) => boolean): number => first.findLastIndex((s) => isBag(s) && test(s));
  if (find((s) => s.drive === "writes") >= 0) return first;
  const writes = Math.max(
    0,
    find((s) => s.drive === "chooses"),
    find((s) => s.wait === true),
  );
  return first.map((s, i) => (i === writes && isBag(s) ? { ...s, drive: "writes" } : s));
}

/** Profiles of schema 1, as people may still hold them: guards are put where their screens work on drives. */
export function upgradeProfile(plain: unknown): unknown {
  if (!isBag(plain) || plain.schema !== 1) return plain;
  const text = JSON.stringify(plain).replaceAll("{target.tail}", "the serial number of the planned drive");
  const old: unknown = JSON.parse(text);
  if (!isBag(old)) return plain;
  return {
    ...old,
    schema: 2,
    ...(Array.isArray(old.screens) && { screens: each(old.screens, marked) }),
    ...(Array.isArray(old.firstBoot) && { firstBoot: each(old.firstBoot, marked) }),
    ...(Array.isArray(old.upgrades) && {
      upgrades: each(old.upgrades, (u) =>
        Array.isArray(u.screens) ? { ...u, screens: jumpScreens(u.screens) } : u,
      ),
    }),
  };
}
