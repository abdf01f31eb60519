import type { Moves } from "../../stage";
import { wayOf, type MediaGround } from "../ground";
import { mediaThrough, networkThrough } from "../ways";

/** What is moved through the medium while a share of the image is read; null where the rate is not worth learning. */
export function movesOf(plan: MediaGround, share: number): Moves | null {
  const { image, machine, site } = plan;
  const way = wayOf(plan);
  if (!image || share === 0 || (way !== "virtual media" && way !== "network")) return null;
  const facts = machine?.document.facts ?? null;
  const through = way === "network" ? networkThrough(site) : mediaThrough(facts, site?.name ?? "");
  return { way, through, bytes: Math.round(image.sizeBytes * share) };
}
