// That a session ended, heard from whatever request was refused for it, and that somebody is signed in again.

/** Fires `ended` and `back`. */
export const sessionEvents = new EventTarget();

/** Answers of these say nothing of the coach's session: signing in with a wrong password, a client's own link. */
const OTHERS = ["/api/v1/session", "/api/v1/my/"];

export function heard(request: Request, response: Response): void {
  const { pathname } = new URL(request.url, location.origin);
  if (response.status !== 401 || OTHERS.some((other) => pathname.startsWith(other))) return;
  sessionEvents.dispatchEvent(new Event("ended"));
}
