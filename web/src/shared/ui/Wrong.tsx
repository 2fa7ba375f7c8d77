import type { ReactNode } from "react";

/** What is wrong, in a line under what it is about; nothing when nothing is. The phone's pages have it too: no component library. */
export function Wrong({ children }: { children: ReactNode }) {
  if (!children) return null;
  return (
    <span role="alert" className="wrong">
      {children}
    </span>
  );
}
