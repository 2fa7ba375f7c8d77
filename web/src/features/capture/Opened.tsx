import { lazy } from "react";
import { alsoSay } from "../../i18n/start";

/** The camera is on nobody's way: it comes with its texts when it is opened. */
export const OpenedCapture = lazy(async () => {
  const [{ Capture }, texts] = await Promise.all([
    import("./components/Capture"),
    import("../../i18n/en-capture"),
  ]);
  alsoSay(texts);
  return { default: Capture };
});
