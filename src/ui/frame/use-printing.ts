import { useSyncExternalStore } from "react";

let isPrinting = false;

const subscribe = (tell: () => void) => {
  const set = (to: boolean) => () => {
    isPrinting = to;
    tell();
  };
  const [before, after] = [set(true), set(false)];
  const paper = matchMedia("print");
  const change = (): void => (paper.matches ? before() : after());
  addEventListener("beforeprint", before);
  addEventListener("afterprint", after);
  paper.addEventListener("change", change);
  return () => {
    removeEventListener("beforeprint", before);
    removeEventListener("afterprint", after);
    paper.removeEventListener("change", change);
  };
};

/** Whether the page is being put on paper: what is folded on the screen stands open then. */
export const usePrinting = (): boolean =>
  useSyncExternalStore(
    subscribe,
    () => isPrinting,
    () => false,
  );
