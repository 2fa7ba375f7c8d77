import { useEffect, useEffectEvent } from "react";
import { useSearchParams } from "react-router";

/**
 * Keeps what a page shows in its address, so that a link copied there leads to the same: without steps of history, and without
 * what is as usual (`undefined`). What else stands in the address stays.
 */
export function useMirror(shown: Record<string, string | undefined>): void {
  const [search, setSearch] = useSearchParams();
  const next = new URLSearchParams(search);
  for (const [name, value] of Object.entries(shown)) {
    if (value) next.set(name, value);
    else next.delete(name);
  }
  const address = next.toString();
  const write = useEffectEvent(() => {
    if (address !== search.toString()) setSearch(next, { replace: true, preventScrollReset: true });
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: written when it differs, whatever else changes
  useEffect(() => write(), [address]);
}
