// The private link: its token stands behind the # of the address, which no server sees, and is kept on this phone.
const KEY = "orthomer-link";

/** Forgets the link on this phone. */
export function forgetToken(): void {
  localStorage.removeItem(KEY);
}

/** The token of the address, else the one kept before. The address is cleaned, so that it is not shown or copied along. */
export function linkToken(): string | undefined {
  const given = window.location.hash.slice(1);
  if (/^[0-9a-f]{64}$/.test(given)) {
    localStorage.setItem(KEY, given);
    window.history.replaceState(null, "", "/my");
    return given;
  }
  return localStorage.getItem(KEY) ?? undefined;
}
