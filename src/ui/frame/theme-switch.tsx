"use client";

import { MoonStar, Sun } from "lucide-react";

const YEAR = 31_536_000;

/** From the one to the other. */
export function flipTheme(): void {
  const root = document.documentElement;
  const dark = root.dataset.theme
    ? root.dataset.theme === "night-shift"
    : matchMedia("(prefers-color-scheme: dark)").matches;
  root.dataset.theme = dark ? "day-sheet" : "night-shift";
  document.cookie = `derrick_theme=${root.dataset.theme}; path=/; max-age=${YEAR}; samesite=lax`;
}

/** Day sheet or night shift; kept in a cookie, so that the server draws the right one at once. */
export function ThemeSwitch() {
  return (
    <button
      type="button"
      onClick={flipTheme}
      className="cursor-pointer p-1"
      aria-label="Switch between light and dark theme"
      title="Switch between light and dark theme"
    >
      <Sun aria-hidden="true" size={17} className="hidden [[data-theme=night-shift]_&]:block" />
      <MoonStar aria-hidden="true" size={17} className="[[data-theme=night-shift]_&]:hidden" />
    </button>
  );
}
