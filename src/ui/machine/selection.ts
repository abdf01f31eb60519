/** What is chosen in the drawing of a machine; its card stands in the margin. */
export type Selection =
  | { kind: "drive"; id: string }
  | { kind: "bay"; name: string }
  | { kind: "port"; mac: string }
  | { kind: "controller"; id: string }
  | { kind: "supply"; id: string };

export const sameSelection = (a: Selection | null, b: Selection): boolean =>
  a !== null && JSON.stringify(a) === JSON.stringify(b);

const STEP: Record<string, readonly [column: number, row: number]> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowDown: [0, 1],
  ArrowUp: [0, -1],
};

/**
 * Arrow keys inside a drawing: focus goes to the nearest tile in that direction, as they lie on the screen. Home and
 * End go to the first and last. True when the key was used.
 */
export function moveFocus(container: HTMLElement, key: string): boolean {
  const tiles = [...container.querySelectorAll<HTMLElement>("[data-tile]")];
  const from = tiles.find((t) => t === document.activeElement);
  if (key === "Home" || key === "End") {
    tiles.at(key === "Home" ? 0 : -1)?.focus();
    return tiles.length > 0;
  }
  const step = STEP[key];
  if (!step || !from) return false;
  const [dx, dy] = step;
  const at = centre(from);
  const next = tiles
    .filter((t) => t !== from)
    .map((tile) => ({ tile, x: centre(tile).x - at.x, y: centre(tile).y - at.y }))
    .filter(({ x, y }) => (dx !== 0 ? x * dx > 4 : y * dy > 4))
    // Straight ahead is nearer than aside: a step sideways counts threefold.
    .sort((a, b) => cost(a) - cost(b))[0];
  next?.tile.focus();
  return next !== undefined;

  function cost({ x, y }: { x: number; y: number }): number {
    return dx !== 0 ? Math.abs(x) + 3 * Math.abs(y) : Math.abs(y) + 3 * Math.abs(x);
  }
}

function centre(element: HTMLElement): { x: number; y: number } {
  const box = element.getBoundingClientRect();
  return { x: box.left + box.width / 2, y: box.top + box.height / 2 };
}
