import { useSyncExternalStore } from "react";

/** Whether the device is as said, now and whenever that changes. */
function useMedia(query: string): boolean {
  const listen = (tell: () => void) => {
    const list = matchMedia(query);
    list.addEventListener("change", tell);
    return () => list.removeEventListener("change", tell);
  };
  return useSyncExternalStore(listen, () => matchMedia(query).matches);
}

/** Whether the page is as narrow as a phone: up to here it is held in one hand; the same number stands in the style sheets. */
export const useNarrow = (): boolean => useMedia("(max-width: 700px)");

/** Whether it is pressed by fingers. */
export const useFingers = (): boolean => useMedia("(pointer: coarse)");
