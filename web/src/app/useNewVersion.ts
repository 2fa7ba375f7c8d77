import { useEffect, useState } from "react";

/** How often a page that stays open asks. */
const ASK_MS = 10 * 60_000;

/** The script a page is made of: another one is another version. */
const scriptOf = (page: Document): string | null | undefined =>
  page.querySelector('script[type="module"][src]')?.getAttribute("src");

/** Whether the server has another version than this tab; asked when the tab is looked at again, and now and then. */
export function useNewVersion(): boolean {
  const [newer, setNewer] = useState(false);
  useEffect(() => {
    if (newer) return;
    const ask = async () => {
      if (document.visibilityState !== "visible") return;
      const page = await fetch("/", { cache: "no-store" }).catch(() => undefined);
      if (!page?.ok) return;
      const served = scriptOf(new DOMParser().parseFromString(await page.text(), "text/html"));
      if (served && served !== scriptOf(document)) setNewer(true);
    };
    const timer = setInterval(() => void ask(), ASK_MS);
    const looked = () => void ask();
    document.addEventListener("visibilitychange", looked);
    return () => {
      clearInterval(timer);
      document.removeEventListener("visibilitychange", looked);
    };
  }, [newer]);
  return newer;
}
