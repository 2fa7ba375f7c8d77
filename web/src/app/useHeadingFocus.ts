import { useEffect, useRef } from "react";
import { useLocation } from "react-router";

/** How long a page may take to have its heading. */
const WAIT_MS = 3000;

/** After moving to another page the focus is on its heading, so that readers and keys go on from there. */
export function useHeadingFocus(): void {
  const { pathname } = useLocation();
  const before = useRef(pathname);
  useEffect(() => {
    // A page that was opened by its address begins at its beginning.
    if (before.current === pathname) return;
    before.current = pathname;
    const until = performance.now() + WAIT_MS;
    let frame = 0;
    const look = () => {
      const heading = document.querySelector<HTMLElement>("main h1");
      const active = document.activeElement;
      // Whoever has begun to type meanwhile is left alone, and so is a page that put the focus itself.
      if (active && active !== document.body && active.closest("main, dialog")) return;
      if (heading) {
        heading.tabIndex = -1;
        heading.focus({ preventScroll: true });
      } else if (performance.now() < until) frame = requestAnimationFrame(look);
    };
    frame = requestAnimationFrame(look);
    return () => cancelAnimationFrame(frame);
  }, [pathname]);
}
