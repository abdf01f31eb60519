import { useSyncExternalStore } from "react";

/** Under this the margin is a drawer, and lists leave columns out. */
const NARROW = "(max-width: 55.99rem)";

const subscribe = (tell: () => void) => {
  const media = matchMedia(NARROW);
  media.addEventListener("change", tell);
  return () => media.removeEventListener("change", tell);
};

/** Whether the window is a narrow one; on the server it is not. */
export const useNarrow = (): boolean =>
  useSyncExternalStore(
    subscribe,
    () => matchMedia(NARROW).matches,
    () => false,
  );
