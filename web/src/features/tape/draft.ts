// What is typed and not yet saved, kept in this browser so that a closed tab loses nothing.
import type { Texts } from "./model";

const key = (roundId: string) => `orthomer-tape-${roundId}`;

export function keepDraft(roundId: string, texts: Texts): void {
  localStorage.setItem(key(roundId), JSON.stringify(texts));
}

export function dropDraft(roundId: string): void {
  localStorage.removeItem(key(roundId));
}

/** A draft of this round; one that does not parse is none. */
export function draftOf(roundId: string): Texts | undefined {
  try {
    const draft: unknown = JSON.parse(localStorage.getItem(key(roundId)) ?? "null");
    return draft && typeof draft === "object" ? (draft as Texts) : undefined;
  } catch {
    return undefined;
  }
}
