// One file to the server or from it, with its progress, to be stopped. The browser's fetch tells no progress of what it sends.
import { problemOf } from "../api/client";
import { heard } from "../api/session";

export interface Way {
  method: "GET" | "POST";
  path: string;
  headers?: Record<string, string>;
}

export interface Told {
  /** Share sent or fetched, 0 to 1; nothing while its size is not known. */
  onShare: (share: number) => void;
  /** All is sent: the server takes it in. */
  onSent?: () => void;
  /** Answered with a status of the 200s. */
  onDone: (answer: XMLHttpRequest) => void;
  /** The server's own sentence; nothing when the line broke off. */
  onFailed: (says?: string) => void;
  onStopped: () => void;
}

/** What the server said when it refused; nothing when that cannot be read. */
async function refusal(request: XMLHttpRequest): Promise<string | undefined> {
  try {
    const answer: unknown = request.response;
    const text = answer instanceof Blob ? await answer.text() : request.responseText;
    return problemOf(JSON.parse(text))?.detail;
  } catch {
    return undefined;
  }
}

/** Sends a file, or fetches one when there is none to send; the answer stops it. */
export function transfer(
  { method, path, headers = {} }: Way,
  file: Blob | undefined,
  told: Told,
): () => void {
  const request = new XMLHttpRequest();
  const share = ({ loaded, total, lengthComputable }: ProgressEvent) => {
    if (lengthComputable) told.onShare(loaded / Math.max(total, 1));
  };
  if (file) {
    request.upload.onprogress = share;
    request.upload.onload = () => told.onSent?.();
  } else {
    request.onprogress = share;
  }
  request.onload = async () => {
    const { status } = request;
    if (status >= 200 && status < 300) return told.onDone(request);
    heard(path, status);
    told.onFailed(await refusal(request));
  };
  request.onerror = () => told.onFailed();
  request.onabort = () => told.onStopped();
  request.open(method, path);
  for (const [name, value] of Object.entries(headers)) request.setRequestHeader(name, value);
  if (file) request.setRequestHeader("Content-Type", "application/octet-stream");
  // The browser keeps a blob where there is room for it, also outside of memory.
  else request.responseType = "blob";
  request.send(file ?? null);
  return () => request.abort();
}
