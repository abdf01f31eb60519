/** Layouts whose name on the sheet is not that of xkb: its layout and its variant. */
const VARIANTS: Readonly<Record<string, { layout: string; variant: string }>> = {
  "us-intl": { layout: "us", variant: "intl" },
  "us-dvorak": { layout: "us", variant: "dvorak" },
  "ch-fr": { layout: "ch", variant: "fr" },
};

/** Layout and variant of xkb of a layout that the sheet names; any other name is a layout without a variant. */
export const xkbNames = (name: string): { layout: string; variant: string } =>
  (Object.hasOwn(VARIANTS, name) ? VARIANTS[name] : undefined) ?? { layout: name, variant: "" };

/**
 * The name on the sheet of a layout as files write it: "ch", "ch(fr)", "ch (fr)"; what has no name here comes back as it
 * stands there.
 */
export function keyboardNamed(written: string): string {
  const [, layout = written, variant = ""] = /^([a-z-]+)\s*\(([a-z0-9_-]*)\)$/.exec(written.trim()) ?? [];
  if (variant === "") return layout;
  const known = Object.entries(VARIANTS).find(([, v]) => v.layout === layout && v.variant === variant);
  return known?.[0] ?? written;
}
