// The pages that work without a connection install the worker that keeps them; the others always come fresh.
import { registerSW } from "virtual:pwa-register";

let registered = false;

export function goOffline(): void {
  if (registered || !("serviceWorker" in navigator)) return;
  registered = true;
  registerSW({ immediate: true });
}
