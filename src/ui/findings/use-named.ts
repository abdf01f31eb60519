import { useEffect, type RefObject } from "react";

/** The entry that holds a finding by its label. */
function entryWith(margin: HTMLElement, label: string): HTMLElement | null {
  const own = document.getElementById(label);
  if (own && margin.contains(own)) return own;
  const number = (text: string): number => Number(text.replace(/^\D+/, ""));
  const zone = label.replace(/\d+$/, "");
  // A folded entry names its first finding only: the last one that does not begin behind the label holds it.
  const folded = [...margin.querySelectorAll<HTMLElement>(`[data-entry][data-zone="${zone}"]`)];
  return folded.findLast((e) => number(e.dataset.label ?? "") <= number(label)) ?? null;
}

/** Opens the entry that the address names ("#D4"), also while it is folded with others, and gives it the keys. */
export function useNamed(margin: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    const show = (): void => {
      const label = decodeURIComponent(location.hash.slice(1));
      const aside = margin.current;
      if (!aside || !/^[A-Z]\d+$/.test(label)) return;
      const entry = entryWith(aside, label);
      if (entry?.id !== label)
        entry?.querySelector<HTMLButtonElement>("[data-opens][aria-expanded=false]")?.click();
      requestAnimationFrame(() => {
        const named = document.getElementById(label) ?? entry;
        named?.focus();
        named?.scrollIntoView({ block: "center" });
      });
    };
    show();
    addEventListener("hashchange", show);
    return () => removeEventListener("hashchange", show);
  }, [margin]);
}
