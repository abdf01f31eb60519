/** A text that cannot be read where it stands, and what is wrong with it. */
export interface Unfit {
  kind: "cut" | "overlaps" | "leaves its frame" | "scrolls sideways";
  text: string;
  /** Where: the elements from outside in. */
  at: string;
}

/**
 * Looks at every text of the page as it is laid out, also below the fold: what a box cuts off without telling it
 * whole on hover, what lies on another text, what runs out of its frame, and what has to be moved sideways. It runs in the browser.
 */
export function unfitTexts(): Unfit[] {
  interface Piece {
    text: string;
    holder: HTMLElement;
    box: DOMRect;
    layer: Element | null;
  }
  /** What is never cut, not even where a pointer that rests on it tells all of it. */
  const MATTERS = "h1, h2, h3, th, td, dt, dd, label, time, .label, .btn, [role=cell], [role=columnheader]";
  const SCROLLS = "pre, pre *, textarea, input, svg *, [data-drawing], .cm-scroller";
  const found: Unfit[] = [];
  const pieces: Piece[] = [];
  const styles = new Map<Element, CSSStyleDeclaration>();
  const styleOf = (e: Element): CSSStyleDeclaration => {
    const known = styles.get(e) ?? getComputedStyle(e);
    styles.set(e, known);
    return known;
  };
  const upwards = function* (from: Element): Generator<Element> {
    for (let e: Element | null = from; e && e !== document.body; e = e.parentElement) yield e;
  };
  const nameOf = (e: Element): string =>
    [...upwards(e)]
      .slice(0, 5)
      .reverse()
      .map((x) => `${x.tagName.toLowerCase()}${x.id ? `#${x.id}` : ""}`)
      .join(" > ");
  const tell = (kind: Unfit["kind"], text: string, holder: Element): void =>
    void found.push({ kind, text: text.slice(0, 90), at: nameOf(holder) });
  /** What a pointer that rests on it is told. */
  const onHover = (e: Element): string => {
    e.dispatchEvent(new PointerEvent("pointerover", { bubbles: true }));
    return e.closest<HTMLElement>("[title]")?.title ?? "";
  };

  /** It lies over the page, and covers what is below it: a dialog, a bar that stays, a list that was opened. */
  const isAbove = (e: Element): boolean => {
    const { position, zIndex } = styleOf(e);
    return position === "sticky" || position === "fixed" || (position === "absolute" && zIndex !== "auto");
  };
  const frameOf = (holder: Element): Element | undefined => {
    for (const e of upwards(holder)) {
      const { overflowX, borderLeftWidth, borderRightWidth } = styleOf(e);
      if (overflowX !== "visible") return undefined;
      if (e.matches("td, th, [role=cell], [role=columnheader]")) return e;
      if (parseFloat(borderLeftWidth) > 0 && parseFloat(borderRightWidth) > 0) return e;
    }
    return undefined;
  };

  const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    const holder = node.parentElement!;
    const text = node.textContent!.trim().replace(/\s+/g, " ");
    if (!text || holder.closest("script, style, option, select, textarea, noscript, nextjs-portal")) continue;
    if (!holder.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue;
    const range = document.createRange();
    range.selectNodeContents(node);
    const boxes = [...range.getClientRects()].filter((r) => r.width > 0.5 && r.height > 0.5);
    const frame = frameOf(holder);
    let isCut = false;
    let hasLeft = false;
    for (const box of boxes) {
      let { left, right, top, bottom } = box;
      let isForReaders = false;
      for (const e of upwards(holder)) {
        const { overflowX, overflowY } = styleOf(e);
        if (overflowX === "visible" && overflowY === "visible") continue;
        const r = e.getBoundingClientRect();
        // A box of one pixel keeps its text for those who have it read out.
        if (r.width <= 1 || r.height <= 1) isForReaders = true;
        const stops = (overflow: string): boolean => overflow === "hidden" || overflow === "clip";
        if (stops(overflowX) && (right > r.right + 1 || left < r.left - 1)) isCut = true;
        if (stops(overflowY) && (bottom > r.bottom + 3 || top < r.top - 3)) isCut = true;
        [left, right] = [Math.max(left, r.left), Math.min(right, r.right)];
        [top, bottom] = [Math.max(top, r.top), Math.min(bottom, r.bottom)];
      }
      if (isForReaders) {
        isCut = false;
        break;
      }
      const rim = frame?.getBoundingClientRect();
      if (rim && (right > rim.right + 1 || left < rim.left - 1)) hasLeft = true;
      if (right - left < 2 || bottom - top < 4) continue;
      const layer = [...upwards(holder)].find(isAbove) ?? null;
      pieces.push({ text, holder, layer, box: new DOMRect(left, top, right - left, bottom - top) });
    }
    const matters = holder.closest(MATTERS) !== null;
    if (isCut && (matters || !onHover(holder).replace(/\s+/g, " ").includes(text))) tell("cut", text, holder);
    if (hasLeft) tell("leaves its frame", text, holder);
  }

  // What stands in a field is not a text of the page: it is measured as it is drawn.
  const pen = document.createElement("canvas").getContext("2d")!;
  for (const e of document.querySelectorAll<HTMLInputElement | HTMLSelectElement>("input, select")) {
    if (!e.checkVisibility() || /checkbox|radio|file|hidden/.test(e.type)) continue;
    const { font, paddingLeft, paddingRight, letterSpacing } = styleOf(e);
    const text = e instanceof HTMLSelectElement ? e.selectedOptions[0]?.text : e.value || e.placeholder;
    pen.font = font;
    pen.letterSpacing = letterSpacing;
    const room = e.clientWidth - parseFloat(paddingLeft) - parseFloat(paddingRight);
    if (text && e.clientWidth > 1 && pen.measureText(text).width > room + 1 && onHover(e) !== text)
      tell("cut", text, e);
  }

  // A wide table may scroll in a narrow window; what a text editor shows always may.
  if (innerWidth >= 1280)
    for (const e of document.querySelectorAll("body *"))
      if (
        /auto|scroll/.test(styleOf(e).overflowX) &&
        e.scrollWidth > e.clientWidth + 1 &&
        !e.matches(SCROLLS)
      )
        tell("scrolls sideways", e.textContent ?? "", e);

  pieces.sort((a, b) => a.box.top - b.box.top);
  const told = new Set<string>();
  pieces.forEach((a, i) => {
    for (let j = i + 1; j < pieces.length && pieces[j]!.box.top < a.box.bottom - 4; j++) {
      const b = pieces[j]!;
      if (a.holder === b.holder || a.layer !== b.layer) continue;
      const wide = Math.min(a.box.right, b.box.right) - Math.max(a.box.left, b.box.left);
      const high = Math.min(a.box.bottom, b.box.bottom) - Math.max(a.box.top, b.box.top);
      const both = `${a.text.slice(0, 40)} | ${b.text.slice(0, 40)}`;
      if (wide < 2 || high < 5 || told.has(both)) continue;
      told.add(both);
      tell("overlaps", both, b.holder);
    }
  });
  return found;
}
