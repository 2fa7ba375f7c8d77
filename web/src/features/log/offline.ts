// The pages that work without a connection install the worker that keeps them; the others always come fresh.

import { registerSW } from "virtual:pwa-register";
import { useSyncExternalStore } from "react";

let registered = false;
let take: (() => void) | undefined;
const told = new Set<() => void>();

export function goOffline(): void {
  if (registered || !("serviceWorker" in navigator)) return;
  registered = true;
  // What waits to be sent is not to be thrown out when the phone runs short of room; a browser may say no.
  void navigator.storage?.persist?.();
  const update = registerSW({
    immediate: true,
    onNeedRefresh: () => {
      take = () => void update(true);
      for (const tell of told) tell();
    },
  });
}

const listen = (tell: () => void) => {
  told.add(tell);
  return () => told.delete(tell);
};

/** Loads the new version, where one waits; whoever shows it chooses a moment at which nothing is under way. */
export const useWaitingVersion = (): (() => void) | undefined => useSyncExternalStore(listen, () => take);

/** After so long a page that was opened to be used at once has what it needs. */
const SETTLED_MS = 5000;

/** Has the week's pictures fetched once, one by one, so that the worker has them where there is no line. */
export function keepPictures(exercises: string[]): void {
  setTimeout(async () => {
    for (const exercise of new Set(exercises))
      await fetch(`/api/v1/figures/${exercise}`).catch(() => undefined);
  }, SETTLED_MS);
}
