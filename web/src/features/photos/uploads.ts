// Pictures on their way in: a few at a time, each with its progress, each to be stopped or tried again on its own.
import { useCallback, useEffect, useRef, useState } from "react";
import { problemOf } from "../../shared/api/client";
import { usePhotosChanged } from "./api";

/** Sent at the same time; the server takes two in at once. */
const AT_ONCE = 3;

export type UploadState = "queued" | "sending" | "taking" | "done" | "failed" | "cancelled";

export interface Upload {
  key: number;
  name: string;
  /** Shows the picture before it is sent. */
  preview: string;
  state: UploadState;
  /** Share sent, 0 to 1. */
  sent: number;
  why?: string;
}

type Change = Partial<Omit<Upload, "key">>;

/** The next uploads to start, when some run already. */
export function startable(uploads: Upload[]): Upload[] {
  const running = uploads.filter(({ state }) => state === "sending" || state === "taking").length;
  return uploads.filter(({ state }) => state === "queued").slice(0, Math.max(AT_ONCE - running, 0));
}

export function changed(uploads: Upload[], key: number, change: Change): Upload[] {
  return uploads.map((upload) => (upload.key === key ? { ...upload, ...change } : upload));
}

/** What the server said when it took nothing in; undefined when the line broke off. */
function refusal(request: XMLHttpRequest): string | undefined {
  try {
    return problemOf(JSON.parse(request.responseText))?.detail;
  } catch {
    return undefined;
  }
}

export function useUploads(roundId: string, broken: string) {
  const [uploads, setUploads] = useState<Upload[]>([]);
  const files = useRef(new Map<number, File>());
  const requests = useRef(new Map<number, XMLHttpRequest>());
  const nextKey = useRef(0);
  const photosChanged = usePhotosChanged();
  const change = useCallback((key: number, to: Change) => setUploads((all) => changed(all, key, to)), []);

  const start = (key: number) => {
    const file = files.current.get(key);
    if (!file || requests.current.has(key)) return;
    const request = new XMLHttpRequest();
    requests.current.set(key, request);
    const over = (to: Change) => {
      requests.current.delete(key);
      change(key, to);
    };
    request.upload.onprogress = ({ loaded, total }) => change(key, { sent: loaded / Math.max(total, 1) });
    request.upload.onload = () => change(key, { state: "taking", sent: 1 });
    request.onload = () => {
      if (request.status !== 201) return over({ state: "failed", why: refusal(request) ?? broken });
      over({ state: "done" });
      photosChanged();
    };
    request.onerror = () => over({ state: "failed", why: broken });
    request.onabort = () => over({ state: "cancelled" });
    request.open("POST", `/api/v1/rounds/${roundId}/photos`);
    request.setRequestHeader("Content-Type", "application/octet-stream");
    request.send(file);
    change(key, { state: "sending", sent: 0, why: undefined });
  };
  const startNow = useRef(start);
  startNow.current = start;
  useEffect(() => {
    for (const { key } of startable(uploads)) startNow.current(key);
  }, [uploads]);

  const add = (list: Iterable<File>) => {
    const fresh = [...list].map((file) => {
      const key = nextKey.current++;
      files.current.set(key, file);
      const preview = URL.createObjectURL(file);
      return { key, name: file.name, preview, state: "queued" as const, sent: 0 };
    });
    setUploads((all) => [...all, ...fresh]);
  };
  const cancel = (key: number) => {
    const request = requests.current.get(key);
    if (request) request.abort();
    else change(key, { state: "cancelled" });
  };
  const retry = (key: number) => change(key, { state: "queued", why: undefined, sent: 0 });
  const clear = () =>
    setUploads((all) => {
      const open = ({ state }: Upload) => state === "queued" || state === "sending" || state === "taking";
      for (const { key, preview } of all.filter((upload) => !open(upload))) {
        files.current.delete(key);
        URL.revokeObjectURL(preview);
      }
      return all.filter(open);
    });
  return { uploads, add, cancel, retry, clear };
}
