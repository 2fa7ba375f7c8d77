// What is typed and not yet saved, kept in this browser so that a closed tab loses nothing. Each account has its own.

import { account } from "./account";

/** Drafts of all, and those of before they had an owner. */
const BEGIN = "orthomer-draft-";
const OWNED = `${BEGIN}of `;
const begin = () => `${OWNED}${account()} `;
const place = (key: string) => `${begin()}${key}`;

export interface Draft<T> {
  value: T;
  /** What it was worked out from; unknown in drafts of earlier versions. */
  base?: T;
}

/** Keeps a draft; whether there was room for it. */
export function keepDraft<T>(key: string, draft: Draft<T>): boolean {
  try {
    localStorage.setItem(place(key), JSON.stringify(draft));
    return true;
  } catch {
    return false;
  }
}

export function dropDraft(key: string): void {
  localStorage.removeItem(place(key));
}

const drafts = (which: (key: string) => boolean) =>
  Object.keys(localStorage).filter((key) => key.startsWith(BEGIN) && which(key));
const own = () => drafts((key) => key.startsWith(begin()));

/** How many sheets of this account are not saved yet. */
export const draftCount = (): number => own().length;

/** How many sheets of other accounts wait in this browser for them. */
export const othersDraftCount = (): number =>
  drafts((key) => key.startsWith(OWNED) && !key.startsWith(begin())).length;

/** Forgets everything that this account typed here and did not save. */
export function dropDrafts(): void {
  for (const key of own()) localStorage.removeItem(key);
}

/** Gives drafts of before they had an owner to whoever is signed in now; what there is no room to copy waits where it is. */
export function adoptDrafts(): void {
  for (const key of drafts((key) => !key.startsWith(OWNED))) {
    const value = localStorage.getItem(key) ?? "null";
    try {
      localStorage.setItem(place(key.slice(BEGIN.length)), `{"value":${value}}`);
      localStorage.removeItem(key);
    } catch {
      return;
    }
  }
}

/** A draft; one that does not parse is none. */
export function draftOf<T>(key: string): Draft<T> | undefined {
  try {
    const draft: Draft<T> | null = JSON.parse(localStorage.getItem(place(key)) ?? "null");
    return draft && typeof draft.value === "object" && draft.value ? draft : undefined;
  } catch {
    return undefined;
  }
}
