// What is typed and not yet saved, kept in this browser so that a closed tab loses nothing.

const BEGIN = "orthomer-draft-";
const place = (key: string) => `${BEGIN}${key}`;

export function keepDraft(key: string, value: unknown): void {
  localStorage.setItem(place(key), JSON.stringify(value));
}

export function dropDraft(key: string): void {
  localStorage.removeItem(place(key));
}

const drafts = () => Object.keys(localStorage).filter((key) => key.startsWith(BEGIN));

/** How many sheets of this browser are not saved yet. */
export const draftCount = (): number => drafts().length;

/** Forgets everything that was typed here and not saved. */
export function dropDrafts(): void {
  for (const key of drafts()) localStorage.removeItem(key);
}

/** A draft; one that does not parse is none. */
export function draftOf<T>(key: string): T | undefined {
  try {
    const draft: unknown = JSON.parse(localStorage.getItem(place(key)) ?? "null");
    return draft && typeof draft === "object" ? (draft as T) : undefined;
  } catch {
    return undefined;
  }
}
