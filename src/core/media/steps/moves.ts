import type { MeasureOf } from "../../work";
import { wayOf, type MediaGround } from "../ground";
import { mediaThrough, networkThrough } from "../ways";

/** What is moved through the medium while a share of the image is read, and nothing where the rate is not worth learning. */
export function movesOf(plan: MediaGround, share: number): MeasureOf<"transfer">[] {
  const { image, machine, site } = plan;
  const way = wayOf(plan);
  if (!image || share === 0 || (way !== "virtual media" && way !== "network")) return [];
  const facts = machine?.document.facts ?? null;
  const through = way === "network" ? networkThrough(site) : mediaThrough(facts, site?.name ?? "");
  return [{ of: "transfer", way, through, bytes: Math.round(image.sizeBytes * share) }];
}
