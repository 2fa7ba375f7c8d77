// That a session ended, heard from whatever request was refused for it, and that somebody is signed in again.

/** Fires `ended` and `back`. */
export const sessionEvents = new EventTarget();

/** Answers of these say nothing of the coach's session: signing in with a wrong password, a client's own link. */
const OTHERS = ["/api/v1/session", "/api/v1/my/"];

/** The way asked for, and the status of the answer. */
export function heard(path: string, status: number): void {
  if (status !== 401 || OTHERS.some((other) => path.startsWith(other))) return;
  sessionEvents.dispatchEvent(new Event("ended"));
}
