/** Something that stands in a margin: where its field is, how high it is, and how much it matters that it stands there. */
export interface Wanted {
  top: number;
  height: number;
  weight: number;
}

/** Things that touch, moved as one: where the first of them begins, and what they weigh together. */
interface Block {
  from: number;
  weight: number;
  /** Sum of weight times the wanted place of the block's beginning. */
  moment: number;
  height: number;
  items: number[];
}

/**
 * Where each stands, in their order, none above the margin's top and none over another, as near to their fields as their
 * weights allow: the least sum of weight times squared distance (isotonic regression; blocks that would overlap are joined).
 */
export function placesOf(wanted: readonly Wanted[], gap: number): number[] {
  const blocks: Block[] = [];
  wanted.forEach(({ top, height, weight }, i) => {
    let block: Block = { from: top, weight, moment: weight * top, height: height + gap, items: [i] };
    for (
      let above = blocks.at(-1);
      above && Math.max(0, above.from) + above.height > block.from;
      above = blocks.at(-1)
    ) {
      blocks.pop();
      const sum = above.weight + block.weight;
      // What stands in the lower block begins so much further down.
      const moment = above.moment + block.moment - block.weight * above.height;
      block = {
        ...{ weight: sum, moment, from: moment / sum },
        ...{ height: above.height + block.height, items: [...above.items, ...block.items] },
      };
    }
    blocks.push(block);
  });
  const places: number[] = [];
  for (const block of blocks) {
    let at = Math.max(0, block.from);
    for (const i of block.items) {
      places[i] = at;
      at += wanted[i]!.height + gap;
    }
  }
  return places;
}
