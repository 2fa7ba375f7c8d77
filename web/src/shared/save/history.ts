// Steps that can be taken back. Pure.

export interface History<T> {
  now: T;
  past: T[];
  future: T[];
  /** What the last step was about; steps about the same thing are one. */
  tag?: string;
}

/** Steps kept; a sheet holds some two hundred fields. */
const MOST = 300;

/** A history that begins here, or goes on from another one. */
export function start<T>(now: T, before?: History<T>): History<T> {
  return before ? { now, past: before.past, future: [] } : { now, past: [], future: [] };
}

export function after<T>(history: History<T>, now: T, tag?: string): History<T> {
  if (tag !== undefined && tag === history.tag) return { ...history, now, future: [] };
  return { now, past: [...history.past, history.now].slice(-MOST), future: [], tag };
}

/** One step back; `undefined` at the beginning. */
export function undone<T>({ now, past, future }: History<T>): History<T> | undefined {
  const before = past.at(-1);
  return past.length === 0
    ? undefined
    : { now: before as T, past: past.slice(0, -1), future: [now, ...future] };
}

/** One step forth again; `undefined` at the end. */
export function redone<T>({ now, past, future }: History<T>): History<T> | undefined {
  const [next, ...rest] = future;
  return future.length === 0 ? undefined : { now: next as T, past: [...past, now], future: rest };
}
