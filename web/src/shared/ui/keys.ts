import { type RefObject, useEffect, useRef } from "react";
import { ACTS, type Act, type Bindings } from "./acts";

/** The key that begins a pair such as `g c`, and how long the second one is waited for. */
const LEAD = "g";
const PAIR_MS = 1200;

/** Fields that take letters and digits; a box that is ticked takes none. */
const TYPED =
  "input:not([type=checkbox], [type=radio], [type=button], [type=file], [type=range]), textarea, select, [contenteditable], dialog, [role=listbox], [role=combobox]";
/** What Space and Enter belong to while it has the focus. */
const PRESSED =
  "a[href], button, input, label, summary, [role=button], [role=switch], [role=slider], [role=tab], [role=radio], [role=checkbox], [role=option], [role=menuitem]";
const PRESSING = [" ", "Enter"];

const within = (target: EventTarget | null, what: string): boolean =>
  target instanceof Element && target.closest(what) !== null;

export const isTyping = (target: EventTarget | null): boolean => within(target, TYPED);

const OFF = "orthomer-single-keys";

/** Whether keys without a modifier do something; whoever speaks to the computer or drops things on it may not want that. */
export const singleKeys = {
  on: (): boolean => localStorage.getItem(OFF) !== "off",
  turn: (on: boolean): void => {
    if (on) localStorage.removeItem(OFF);
    else localStorage.setItem(OFF, "off");
  },
};

const inUse = new Set<RefObject<Bindings>>();
let ledAt: number | undefined;

/** Does what is bound to the act of a key, or of two keys in a row. Keys typed into fields and dialogs are left alone. */
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
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  if (event.key === "Escape") {
    // The keys are the page's again.
    if (isTyping(event.target) && !within(event.target, "dialog")) (event.target as HTMLElement).blur();
    return;
  }
  if (isTyping(event.target) || !singleKeys.on()) return;
  if (PRESSING.includes(event.key) && within(event.target, PRESSED)) return;
  const paired = ledAt !== undefined && event.timeStamp - ledAt < PAIR_MS;
  const name = paired ? `${LEAD} ${event.key}` : event.key;
  // From here on, not from when it was pressed: a page that was busy meanwhile has shown nothing of it yet.
  ledAt = event.key === LEAD ? performance.now() : undefined;
  for (const { current } of [...inUse]) {
    for (const act of Object.keys(current) as Act[]) {
      const which = (ACTS[act].keys as readonly string[]).indexOf(name);
      if (which < 0) continue;
      event.preventDefault();
      current[act]?.(which);
    }
  }
}
