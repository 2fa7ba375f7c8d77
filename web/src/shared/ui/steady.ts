import { useCallback, useRef } from "react";

/** The same function in every render, which does what the newest one does: parts that take it are not drawn anew for it. */
export function useSteady<A extends unknown[], R>(act: (...args: A) => R): (...args: A) => R {
  const latest = useRef(act);
  latest.current = act;
  return useCallback((...args: A) => latest.current(...args), []);
}
