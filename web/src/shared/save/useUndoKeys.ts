import { useEffect, useRef } from "react";

/** Control+Z and Control+Y (or Shift+Control+Z) for a sheet, also while one of its fields has the cursor. */
export function useUndoKeys({ undo, redo }: { undo?: () => void; redo?: () => void }): void {
  const current = useRef({ undo, redo });
  current.current = { undo, redo };
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
      const key = event.key.toLowerCase();
      const forth = key === "y" || (key === "z" && event.shiftKey);
      if (!forth && key !== "z") return;
      event.preventDefault();
      if (forth) current.current.redo?.();
      else current.current.undo?.();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
