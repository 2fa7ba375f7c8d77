// Files on their way in: a few at a time, each with its progress, each to be stopped or tried again on its own.
import { useCallback, useEffect, useEffectEvent, useRef, useState } from "react";
import { transfer, type Way } from "./transfer";

/** Sent at the same time; the server takes two in at once. */
const AT_ONCE = 3;

export type SendState = "queued" | "sending" | "taking" | "done" | "failed" | "stopped";

export interface Sent<To = unknown> {
  key: number;
  /** What it is for, where several go different ways. */
  to: To;
  name: string;
  /** Shows the picture before it is sent; nothing for other files. */
  preview?: string;
  state: SendState;
  /** Share sent, 0 to 1. */
  share: number;
  /** Why it was not taken, in the server's words; nothing when the line broke off. */
  why?: string;
}

type Change = Partial<Pick<Sent, "state" | "share" | "why">>;

interface Options<To> {
  /** Where a file goes. */
  way: (to: To) => Way;
  /** Taken in, with the server's answer. */
  onDone?: (answer: unknown, to: To) => void;
}

export const isOpen = ({ state }: Sent): boolean =>
  state === "queued" || state === "sending" || state === "taking";

/** The next to start, when some run already. */
export function startable<To>(all: Sent<To>[]): Sent<To>[] {
  const running = all.filter(({ state }) => state === "sending" || state === "taking").length;
  return all.filter(({ state }) => state === "queued").slice(0, Math.max(AT_ONCE - running, 0));
}

/** The server answers in JSON, or with nothing. */
function answerOf(request: XMLHttpRequest): unknown {
  return request.responseText === "" ? undefined : JSON.parse(request.responseText);
}

export function useSending<To>({ way, onDone }: Options<To>) {
  const [all, setAll] = useState<Sent<To>[]>([]);
  const files = useRef(new Map<number, File>());
  const stops = useRef(new Map<number, () => void>());
  const nextKey = useRef(0);
  const change = useCallback(
    (key: number, to: Change) =>
      setAll((now) => now.map((sent) => (sent.key === key ? { ...sent, ...to } : sent))),
    [],
  );

  const start = useEffectEvent((sent: Sent<To>) => {
    const { key } = sent;
    const file = files.current.get(key);
    if (!file || stops.current.has(key)) return;
    const over = (to: Change) => {
      stops.current.delete(key);
      change(key, to);
    };
    const stop = transfer(way(sent.to), file, {
      onShare: (share) => change(key, { share }),
      onSent: () => change(key, { state: "taking", share: 1 }),
      onDone: (answer) => {
        over({ state: "done" });
        onDone?.(answerOf(answer), sent.to);
      },
      onFailed: (why) => over({ state: "failed", why }),
      onStopped: () => over({ state: "stopped" }),
    });
    stops.current.set(key, stop);
    change(key, { state: "sending", share: 0, why: undefined });
  });
  useEffect(() => {
    for (const sent of startable(all)) start(sent);
  }, [all]);

  const add = (list: Iterable<File>, to: To) => {
    const fresh = [...list].map((file) => {
      const key = nextKey.current++;
      files.current.set(key, file);
      const preview = file.type.startsWith("image/") ? URL.createObjectURL(file) : undefined;
      return { key, to, name: file.name, preview, state: "queued" as const, share: 0 };
    });
    setAll((now) => [...now, ...fresh]);
  };
  const stop = (key: number) => {
    const running = stops.current.get(key);
    if (running) running();
    else change(key, { state: "stopped" });
  };
  const retry = (key: number) => change(key, { state: "queued", why: undefined, share: 0 });
  /** Lets go of what is over, or of that which is meant among it. */
  const clear = (meant: (to: To) => boolean = () => true) =>
    setAll((now) => {
      const goes = (sent: Sent<To>) => !isOpen(sent) && meant(sent.to);
      for (const { key, preview } of now.filter(goes)) {
        files.current.delete(key);
        if (preview) URL.revokeObjectURL(preview);
      }
      return now.filter((sent) => !goes(sent));
    });
  return { all, add, stop, retry, clear };
}

export interface Sending extends Pick<ReturnType<typeof useSending>, "all" | "stop" | "retry"> {
  clear: () => void;
}
