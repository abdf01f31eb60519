"use client";

import { memo, useCallback, useState, type CSSProperties, type ReactNode, type RefCallback } from "react";
import { useWindowVirtualizer } from "@tanstack/react-virtual";

interface Place {
  "aria-rowindex": number;
  "data-index": number;
  ref: RefCallback<HTMLElement>;
  style: CSSProperties;
}
type Render = (index: number, place: Place) => ReactNode;

/**
 * Rows that scroll with the page, of which only those in sight are drawn. `height` is the least of each, in pixels: a
 * row whose text takes more is measured and gets it. `render` is given the index and the attributes that put a row in
 * its place; while it stays the same function, a row in sight is not drawn again.
 */
export function VirtualRows({ count, height, render }: { count: number; height: number; render: Render }) {
  const [top, setTop] = useState(0);
  const measure = useCallback((element: HTMLDivElement | null) => {
    if (element) setTop(element.getBoundingClientRect().top + window.scrollY);
  }, []);
  const virtual = useWindowVirtualizer({
    count,
    estimateSize: () => height,
    overscan: 10,
    scrollMargin: top,
    initialRect: FIRST,
  });
  return (
    <div role="rowgroup" ref={measure} className="relative" style={{ height: virtual.getTotalSize() }}>
      {virtual.getVirtualItems().map((item) => (
        <Placed
          key={item.key}
          {...{ index: item.index, top: item.start - top, height, measure: virtual.measureElement, render }}
        />
      ))}
    </div>
  );
}

/** What the server draws before it knows the window. */
const FIRST = { width: 1280, height: 800 };

/** Measured: without this every row in sight is drawn again at each step of scrolling, at twice the time a frame has. */
const Placed = memo(function Placed({
  index,
  top,
  height,
  measure,
  render,
}: {
  index: number;
  top: number;
  height: number;
  measure: RefCallback<HTMLElement>;
  render: Render;
}) {
  return render(index, {
    "aria-rowindex": index + 2,
    "data-index": index,
    ref: measure,
    style: {
      position: "absolute",
      top: 0,
      minHeight: height,
      contain: "content",
      transform: `translateY(${top}px)`,
    },
  });
});
