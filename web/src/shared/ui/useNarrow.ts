import { useSyncExternalStore } from "react";

/** Up to here a page is held in one hand; the same number stands in the style sheets. */
const NARROW = "(max-width: 700px)";

const listen = (tell: () => void) => {
  const query = matchMedia(NARROW);
  query.addEventListener("change", tell);
  return () => query.removeEventListener("change", tell);
};

/** Whether the page is as narrow as a phone. */
export const useNarrow = (): boolean => useSyncExternalStore(listen, () => matchMedia(NARROW).matches);
