import { useEffect, useRef } from "react";

type Bindings = Record<string, () => void>;

/** How long the second key of a pair such as `g c` is waited for. */
const PAIR_MS = 1200;

export function isTyping(target: EventTarget | null): boolean {
  const element = target as HTMLElement | null;
  return !!element?.closest("input, textarea, select, [contenteditable], dialog, [role=listbox]");
}

let lead: { key: string; at: number } | undefined;

/** Calls the binding of a key, or of two keys in a row. Keys typed into fields and dialogs are left alone. */
export function useKeys(bindings: Bindings): void {
  const current = useRef(bindings);
  current.current = bindings;
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
      const paired = lead && event.timeStamp - lead.at < PAIR_MS ? `${lead.key} ${event.key}` : undefined;
      const action = (paired && current.current[paired]) || (!paired && current.current[event.key]);
      if (action) {
        event.preventDefault();
        action();
      }
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}

if (typeof window !== "undefined") {
  // After all bindings have seen a key it becomes the first of a possible pair.
  window.addEventListener("keydown", (event) => {
    const at = event.timeStamp;
    const key = event.key;
    if (!isTyping(event.target))
      queueMicrotask(() => setTimeout(() => (lead = key === "g" ? { key, at } : undefined)));
  });
}
