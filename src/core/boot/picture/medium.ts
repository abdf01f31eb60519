import { insideVerdict, loaderSignature, type Image } from "../../image";
import { factsOf } from "../../machine";
import { mediaWords, stickBoots, stickOf, wayOf } from "../../media";
import type { BootPlan } from "../ground";
import { FALLBACK, type Arch, type BootDevice, type Contents, type Loader } from "../resolve";
import { HERE } from "../seen";
import { MEDIUM } from "./view";

/** Whether the medium starts in the planned mode: read out of the file, else by how it was written and what was typed. */
function starts(ground: BootPlan, image: Image): boolean | "unknown" {
  const { mode } = ground.sheet.boot;
  const way = wayOf(ground);
  const written = way === "stick" ? stickOf(ground).written : "as the image";
  if (written !== "as the image") return stickBoots(written, image.bootModes, mode);
  const inside = insideVerdict(image, way, mode);
  if (!inside) return image.bootModes.includes(mode);
  return inside.answer === "on some firmware" ? "unknown" : inside.answer === "boots";
}

/** What the medium starts, in words. */
export const installerName = ({ profile, image }: BootPlan): string =>
  profile ? `the installer of ${profile.name} ${image?.version ?? profile.version}` : "the installer";

const archOf = (image: Image): Arch => (image.architecture === "aarch64" ? "aa64" : "x64");

function loaderOn(ground: BootPlan, image: Image): Loader {
  const arch = archOf(image);
  const { state } = loaderSignature(image, wayOf(ground));
  return {
    ...{
      path: FALLBACK[arch].toUpperCase(),
      arch,
      conduct: "starts the system",
      starts: installerName(ground),
    },
    signed: state === "unknown" ? null : state === "signed",
  };
}

/** A medium that is known to start, or known not to; firmware finds its loader, or nothing at all. */
function contentsOn(ground: BootPlan, image: Image, boots: boolean): Contents {
  const isLegacy = ground.sheet.boot.mode === "legacy";
  const isStick = wayOf(ground) === "stick";
  const name = installerName(ground);
  const volume = {
    ...{ partition: null, start: null, sectors: null, fat: true },
    loaders: boots && !isLegacy ? [loaderOn(ground, image)] : [],
  };
  const discs = boots
    ? [{ platform: isLegacy ? ("legacy" as const) : ("uefi" as const), volume, starts: name }]
    : [];
  return {
    ...{ sectorBytes: 512, sizeBytes: image.sizeBytes, unreadable: false },
    volumes: isStick ? [volume] : [],
    images: isStick ? null : discs,
    code: { signature: boots && isLegacy, conduct: "starts the system", starts: name },
  };
}

/** Whether the management controller may show a virtual disc at all. */
function hiddenOf(ground: BootPlan): BootDevice["hidden"] {
  if (wayOf(ground) !== "virtual media") return null;
  const { present, virtualMedia = "unknown" } = factsOf(ground)?.controller ?? {};
  if (present === false || virtualMedia === "not licensed") return "not licensed";
  return virtualMedia === "licensed" ? null : "unknown";
}

/** The medium of the plan as a device; null where the network is the way, or nothing is started from media. */
export function mediumDevice(ground: BootPlan): BootDevice | null {
  const { image } = ground;
  const way = wayOf(ground);
  if (!ground.fromMedia || way === "network") return null;
  const boots = image ? starts(ground, image) : "unknown";
  const name = mediaWords(ground);
  return {
    ...HERE,
    ...{ id: MEDIUM, name, label: name, removable: true, hidden: hiddenOf(ground) },
    kind: way === "stick" ? "stick" : way === "disc" ? "disc" : "virtual disc",
    contents: image && boots !== "unknown" ? contentsOn(ground, image, boots) : null,
    system: boots === "unknown" ? { name: installerName(ground), isSure: false } : null,
  };
}
