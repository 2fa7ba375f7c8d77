// The pages that work without a connection install the worker that keeps them; the others always come fresh.
import { registerSW } from "virtual:pwa-register";

let registered = false;

export function goOffline(): void {
  if (registered || !("serviceWorker" in navigator)) return;
  registered = true;
  registerSW({ immediate: true });
}

/** Has the week's pictures fetched once, so that the worker has them where there is no line. */
export function keepPictures(exercises: string[]): void {
  for (const exercise of new Set(exercises)) {
    new Image().src = `/api/v1/figures/${exercise}`;
  }
}
