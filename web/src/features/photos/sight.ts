// What part of the table is seen. Kept outside React's state: panning sixty times a second moves layers, not components.
import { useEffect, useRef } from "react";
import type { Sight } from "./model";

type Listener = (sight: Sight) => void;

export class SightStore {
  private sight: Sight = { scale: 0.5, x: 0, y: 0 };
  private listeners = new Set<Listener>();
  private frame = 0;

  get(): Sight {
    return this.sight;
  }

  /** Tells the panes once a frame, however often it is called. */
  set(sight: Sight): void {
    this.sight = sight;
    if (this.frame) return;
    this.frame = requestAnimationFrame(() => {
      this.frame = 0;
      for (const listener of this.listeners) listener(this.sight);
    });
  }

  subscribe(listener: Listener): () => void {
    this.listeners.add(listener);
    listener(this.sight);
    return () => this.listeners.delete(listener);
  }
}

/** Calls `apply` now and at every change of what is seen. */
export function useSight(store: SightStore, apply: Listener): void {
  const latest = useRef(apply);
  latest.current = apply;
  useEffect(() => store.subscribe((sight) => latest.current(sight)), [store]);
  // Whatever was rendered anew stands where the view is.
  useEffect(() => latest.current(store.get()));
}
