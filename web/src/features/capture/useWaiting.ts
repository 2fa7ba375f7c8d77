// A client's pictures on their way: kept locked on the phone, sent when there is a line, and gone from the phone when the studio has them.
import { useEffect, useEffectEvent, useRef, useState } from "react";
import { useSending } from "../../shared/send";
import { photoWay, usePictureCame } from "./api";
import { dropPicture, keepPicture, type Take, waitingPictures } from "./waiting";

/** A picture on its way, with its place among those the phone keeps. */
export type Going = Take & { id?: number };

export function useWaiting(token: string) {
  const came = usePictureCame(token);
  /** Where a picture could not be kept: it goes with the page. */
  const [onlyHere, setOnlyHere] = useState<"full" | "not-here">();
  const sending = useSending<Going>({
    way: (to) => photoWay(token, to),
    onDone: (_, { id }) => {
      if (id !== undefined) void dropPicture(id);
      came();
    },
  });
  const begun = useRef<string>(undefined);
  const resume = useEffectEvent(async () => {
    for (const { id, file, take } of await waitingPictures(token)) sending.add([file], { ...take, id });
  });
  useEffect(() => {
    // Once for each link: what is added meanwhile is on its way already.
    if (begun.current === token) return;
    begun.current = token;
    void resume();
  }, [token]);
  const again = useEffectEvent(() => {
    // What the studio refused stays refused; what broke off goes on.
    for (const { key, state, why } of sending.all)
      if (state === "failed" && why === undefined) sending.retry(key);
  });
  useEffect(() => {
    window.addEventListener("online", again);
    return () => window.removeEventListener("online", again);
  }, []);

  /** Keeps a picture and sends it. */
  const add = async (file: File, take: Take) => {
    const kept = await keepPicture(token, file, take);
    if (typeof kept === "string") setOnlyHere(kept);
    sending.add([file], typeof kept === "string" ? take : { ...take, id: kept.id });
  };
  /** Lets go of what was refused of a pose: another one takes its place. */
  const clear = (pose: Take["pose"]) => {
    for (const { to, state } of sending.all)
      if (to.pose === pose && to.id !== undefined && (state === "failed" || state === "stopped"))
        void dropPicture(to.id);
    sending.clear((to) => to.pose === pose);
  };
  return { all: sending.all, stop: sending.stop, retry: sending.retry, add, clear, onlyHere };
}

export type Waiting = ReturnType<typeof useWaiting>;
