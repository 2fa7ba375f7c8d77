import { useEffect, useRef, useState } from "react";
import type { Schemas } from "../api/client";

export type FeedMessage = Schemas["Message"];

/** Listens to what devices read and sheets ask, while `on`. Gives whether the line is open; the browser opens it again. */
export function useFeed(on: boolean, onMessage: (message: FeedMessage) => void): boolean {
  const [connected, setConnected] = useState(false);
  const heard = useRef(onMessage);
  heard.current = onMessage;
  useEffect(() => {
    if (!on) return;
    const feed = new EventSource("/api/v1/devices/feed");
    feed.onopen = () => setConnected(true);
    feed.onerror = () => setConnected(false);
    feed.onmessage = (event) => heard.current(JSON.parse(event.data) as FeedMessage);
    return () => {
      feed.close();
      setConnected(false);
    };
  }, [on]);
  return connected;
}
