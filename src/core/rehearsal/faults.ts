import type { Drive } from "../machine";
import { start, type World } from "../world";
import { inPlaceOf, type Fault } from "./fault";

/** Another drive of the machine than the given ones. */
const another = ({ facts }: World, ids: readonly string[]): Drive | undefined =>
  facts.drives.find((d) => !ids.includes(d.id) && d.serial);

const isHeld = (drive: Drive): boolean => drive.contents === null || drive.contents.length > 0;

/** A name with one letter wrong, as fingers type it. */
const mistyped = (text: string): string =>
  text === "" ? "x" : `${text.slice(0, -1)}${text.endsWith("x") ? "y" : "x"}`;

/** What goes wrong at machines, as far as a world holds it. A new fault needs a line here, and is tried on every profile. */
export const FAULTS: readonly Fault[] = [
  {
    code: "other-drive",
    title: "The installer lists another drive in the place of the planned one",
    strike: {
      at: "name drive",
      shows: (world, { drives }) =>
        another(
          world,
          drives.map((d) => d.id),
        )?.serial ?? null,
    },
    caughtBy: ["name drive"],
  },
  {
    code: "other-verb",
    title: "The installer is about to upgrade where it should install, or the other way round",
    strike: {
      at: "read back",
      shows: ({ asks, verb, version, sizes }) =>
        asks.includes("verb") ? { verb: verb === "install" ? "upgrade" : "install", version, sizes } : null,
    },
    caughtBy: ["read back"],
  },
  {
    code: "other-version",
    title: "The medium holds another version than the planned one",
    strike: {
      at: "read back",
      shows: ({ asks, verb, sizes }) => (asks.includes("version") ? { verb, version: "1.0", sizes } : null),
    },
    caughtBy: ["read back"],
  },
  {
    code: "medium-not-in",
    title: "The medium does not connect",
    strike: inPlaceOf("insert medium", (world) => world),
    caughtBy: ["sight"],
  },
  {
    code: "start-missed",
    title: "The key for the boot menu is missed, and the machine starts from its own drive",
    strike: inPlaceOf("start next from", (world) => start({ ...world, once: null, first: null })),
    caughtBy: ["sight"],
  },
  {
    code: "other-mode",
    title: "The medium is started in the other boot mode",
    strike: inPlaceOf("start next from", (world, { medium, mode }) =>
      start({
        ...world,
        once: medium,
        facts: {
          ...world.facts,
          firmware: { ...world.facts.firmware, mode: mode === "uefi" ? "legacy" : "uefi" },
        },
      }),
    ),
    caughtBy: ["sight", "acceptance"],
  },
  {
    code: "medium-stays",
    title: "The medium stays in the machine before the restart",
    // Once the machine has restarted, a medium that is still there does nothing.
    strike: inPlaceOf("remove medium", (world) => (world.running.of === "medium" ? world : null)),
    caughtBy: ["sight"],
  },
  {
    code: "settings-stay",
    title: "Settings for the installation only are not put back",
    strike: inPlaceOf("put settings back", (world) => world),
    caughtBy: ["sight"],
  },
  {
    code: "no-boot-entry",
    title: "The firmware does not find what was installed",
    strike: inPlaceOf("install system", (_, __, usual) => ({
      ...usual,
      starts: false,
      running: usual.running.of === "medium" ? usual.running : { of: "no device" },
    })),
    caughtBy: ["sight"],
  },
  {
    code: "no-start-from-off",
    title: "The machine stays off after a power loss",
    strike: inPlaceOf("switch power", (world, { to }) =>
      to === "on" && world.installed ? { ...world, power: "off", running: { of: "nothing" } } : null,
    ),
    caughtBy: ["sight"],
  },
  {
    code: "name-mistyped",
    title: "The host name is mistyped",
    isTyped: true,
    strike: inPlaceOf("set name", (world, { name }) => ({
      ...world,
      facts: { ...world.facts, system: { ...world.facts.system, hostName: mistyped(name) } },
    })),
    caughtBy: ["acceptance"],
  },
  {
    code: "drive-beside-written",
    title: "A protected drive is written as well",
    strike: inPlaceOf("write drives", (world, { drives }, usual) => {
      const beside = another(world, drives);
      if (!beside || !isHeld(beside)) return null;
      const gone = usual.facts.drives.map((d) => (d.id === beside.id ? { ...d, contents: [] } : d));
      return { ...usual, lost: [...usual.lost, beside.id], facts: { ...usual.facts, drives: gone } };
    }),
    caughtBy: ["acceptance"],
  },
  {
    code: "log-in-kept",
    title: "A default login keeps its password",
    isTyped: true,
    strike: inPlaceOf("change log-in", (world) => world),
    // The step says what to do and asks for nothing that shows it: nobody would know.
    caughtBy: [],
  },
];
