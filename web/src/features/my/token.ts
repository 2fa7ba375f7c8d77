// The private link: its token stands behind the # of the address, which no server sees, and is kept on this phone.
const KEY = "orthomer-link";
const TOKEN = /^[0-9a-f]{64}$/;

/** Forgets the link on this phone. */
export function forgetToken(): void {
  localStorage.removeItem(KEY);
}

/** The token of a link, or of what of it was copied. */
export function tokenIn(text: string): string | undefined {
  const token = text.trim().split("#").at(-1) ?? "";
  return TOKEN.test(token) ? token : undefined;
}

export function keepToken(token: string): void {
  localStorage.setItem(KEY, token);
}

/** The token of the address, else the one kept before. The address is cleaned, so that it is not shown or copied along. */
export function linkToken(): string | undefined {
  const given = tokenIn(window.location.hash);
  if (!given) return localStorage.getItem(KEY) ?? undefined;
  keepToken(given);
  window.history.replaceState(null, "", "/my");
  return given;
}

/**
 * Has the page, once it is put on the home screen, open this client's page again: some phones give such a page no storage of the
 * browser's, so the link travels in the address it starts at. The manifest is the shipped one but for that.
 */
export async function startHere(token: string): Promise<void> {
  const link = document.querySelector<HTMLLinkElement>('link[rel="manifest"]');
  if (!link) return;
  const shipped = await fetch("/manifest.webmanifest")
    .then((answer) => (answer.ok ? answer.json() : undefined))
    .catch(() => undefined);
  if (!shipped) return;
  const here = (path: string) => new URL(path, window.location.origin).href;
  const icons = shipped.icons?.map((icon: { src: string }) => ({ ...icon, src: here(icon.src) }));
  const own = { ...shipped, icons, id: here("/my"), scope: here("/"), start_url: here(`/my#${token}`) };
  link.href = `data:application/manifest+json,${encodeURIComponent(JSON.stringify(own))}`;
}
