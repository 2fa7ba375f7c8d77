// Keeps the screen on while somebody trains: hands are on the bar, not on the phone.
import { useEffect } from "react";

export function useAwake(): void {
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    let gone = false;
    const ask = async () => {
      if (document.visibilityState !== "visible") return;
      // Refused when the battery is low, or by browsers without it: then the screen goes dark as it always did.
      const given = await navigator.wakeLock?.request("screen").catch(() => undefined);
      if (gone) void given?.release();
      else lock = given;
    };
    void ask();
    document.addEventListener("visibilitychange", ask);
    return () => {
      gone = true;
      document.removeEventListener("visibilitychange", ask);
      void lock?.release();
    };
  }, []);
}
