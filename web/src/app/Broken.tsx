import { useRouteError } from "react-router";
import { BrokenNote } from "./BrokenNote";

/** In the place of a page of the desk that broke: what is safe, and the way to the others. */
export function Broken() {
  return <BrokenNote error={useRouteError()} way="/today" />;
}
