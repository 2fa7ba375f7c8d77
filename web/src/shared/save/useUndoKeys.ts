import { useEffect, useEffectEvent } from "react";

/** Control+Z and Control+Y (or Shift+Control+Z) for a sheet, also while one of its fields has the cursor. */
export function useUndoKeys({ undo, redo }: { undo?: () => void; redo?: () => void }): void {
  const back = useEffectEvent(() => undo?.());
  const forth = useEffectEvent(() => redo?.());
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.altKey) return;
      const key = event.key.toLowerCase();
      const again = key === "y" || (key === "z" && event.shiftKey);
      if (!again && key !== "z") return;
      event.preventDefault();
      if (again) forth();
      else back();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
