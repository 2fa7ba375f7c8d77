import { useEffect, useEffectEvent, useState } from "react";
import type { Schemas } from "../api/client";

export type FeedMessage = Schemas["Message"];

interface Listener {
  heard: (message: FeedMessage) => void;
  stands: (connected: boolean) => void;
}

/** What tabs tell each other: a message, whether the line stands, or that one of them wants to know. */
type BetweenTabs = { message: FeedMessage } | { connected: boolean } | { asks: true };

const listeners = new Set<Listener>();
let connected = false;
let hangUp: (() => void) | undefined;

function tell(message: FeedMessage): void {
  for (const { heard } of listeners) heard(message);
}

function stand(now: boolean): void {
  connected = now;
  for (const { stands } of listeners) stands(now);
}

function line(onStand: (now: boolean) => void, onMessage: (message: FeedMessage) => void): EventSource {
  const feed = new EventSource("/api/v1/devices/feed");
  feed.onopen = () => onStand(true);
  feed.onerror = () => onStand(false);
  feed.onmessage = (event) => onMessage(JSON.parse(event.data) as FeedMessage);
  return feed;
}

/** One line for all fields of all tabs: a browser has no more than six to a server, and pages need them. */
function dial(): () => void {
  if (!navigator.locks || typeof BroadcastChannel === "undefined") {
    const feed = line(stand, tell);
    return () => feed.close();
  }
  const tabs = new BroadcastChannel("orthomer feed");
  const post = (said: BetweenTabs) => tabs.postMessage(said);
  const ending = new AbortController();
  let leads = false;
  tabs.onmessage = ({ data }: MessageEvent<BetweenTabs>) => {
    if ("message" in data) tell(data.message);
    else if ("connected" in data) stand(data.connected);
    else if (leads) post({ connected });
  };
  post({ asks: true });
  const lead = () =>
    new Promise<void>((end) => {
      leads = true;
      const feed = line(
        (now) => {
          stand(now);
          post({ connected: now });
        },
        (message) => {
          tell(message);
          post({ message });
        },
      );
      ending.signal.addEventListener("abort", () => {
        feed.close();
        end();
      });
    });
  // Refused when it is given up while another tab still leads.
  void navigator.locks.request("orthomer feed", { signal: ending.signal }, lead).catch(() => undefined);
  return () => {
    ending.abort();
    tabs.close();
  };
}

/** Listens to what devices read and sheets ask, while `on`. Gives whether the line is open; the browser opens it again. */
export function useFeed(on: boolean, onMessage: (message: FeedMessage) => void): boolean {
  const [open, setOpen] = useState(connected);
  const heard = useEffectEvent(onMessage);
  useEffect(() => {
    if (!on) return;
    const listener: Listener = { heard: (message) => heard(message), stands: setOpen };
    listeners.add(listener);
    hangUp ??= dial();
    setOpen(connected);
    return () => {
      listeners.delete(listener);
      setOpen(false);
      if (listeners.size > 0) return;
      hangUp?.();
      hangUp = undefined;
      connected = false;
    };
  }, [on]);
  return open;
}
