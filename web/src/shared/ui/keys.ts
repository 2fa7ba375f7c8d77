import { type RefObject, useEffect, useRef } from "react";

type Bindings = Record<string, () => void>;

/** The key that begins a pair such as `g c`, and how long the second one is waited for. */
const LEAD = "g";
const PAIR_MS = 1200;

export function isTyping(target: EventTarget | null): boolean {
  const element = target as HTMLElement | null;
  return !!element?.closest("input, textarea, select, [contenteditable], dialog, [role=listbox]");
}

const inUse = new Set<RefObject<Bindings>>();
let ledAt: number | undefined;

/** Calls the binding of a key, or of two keys in a row. Keys typed into fields and dialogs are left alone. */
export function useKeys(bindings: Bindings): void {
  const current = useRef(bindings);
  current.current = bindings;
  useEffect(() => {
    if (inUse.size === 0) window.addEventListener("keydown", onKey);
    inUse.add(current);
    return () => {
      inUse.delete(current);
      if (inUse.size === 0) window.removeEventListener("keydown", onKey);
    };
  }, []);
}

/** One listener for all bindings: whether a key is the second of a pair is the same for each of them. */
function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
  const paired = ledAt !== undefined && event.timeStamp - ledAt < PAIR_MS;
  const name = paired ? `${LEAD} ${event.key}` : event.key;
  // From here on, not from when it was pressed: a page that was busy meanwhile has shown nothing of it yet.
  ledAt = event.key === LEAD ? performance.now() : undefined;
  for (const { current } of [...inUse]) {
    const action = current[name];
    if (!action) continue;
    event.preventDefault();
    action();
  }
}
