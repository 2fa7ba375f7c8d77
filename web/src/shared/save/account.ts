// Whose this browser is right now: what is kept in it belongs to an account, so that nobody finds another person's work, and
// nobody's is lost when another signs in.

const KEY = "orthomer-account";

let current = localStorage.getItem(KEY) ?? "";

/** The account that what is kept belongs to; the last one that was signed in here while nobody is known to be. */
export const account = (): string => current;

/** From now on what is kept belongs to somebody. */
export function belongTo(id: string): void {
  if (id === current) return;
  current = id;
  try {
    localStorage.setItem(KEY, id);
  } catch {
    // Without room the next start does not know them before they are signed in: nothing of theirs is shown until then.
  }
}
