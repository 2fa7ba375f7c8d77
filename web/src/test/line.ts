// Requests as the browser would make them, answered by the test.
import { act } from "@testing-library/react";
import { vi } from "vitest";

type Share = { loaded: number; total: number; lengthComputable: boolean };

export class Line {
  static open: Line[] = [];
  upload: { onprogress?: (event: Share) => void; onload?: () => void } = {};
  onprogress?: (event: Share) => void;
  onload?: () => unknown;
  onerror?: () => void;
  onabort?: () => void;
  status = 0;
  responseText = "";
  response: unknown;
  responseType = "";
  path = "";
  headers: Record<string, string> = {};
  answerHeaders: Record<string, string> = {};
  body?: File;
  open(_method: string, path: string) {
    this.path = path;
  }
  setRequestHeader(name: string, value: string) {
    this.headers[name] = value;
  }
  getResponseHeader(name: string) {
    return this.answerHeaders[name] ?? null;
  }
  send(body: File) {
    this.body = body;
    Line.open.push(this);
  }
  abort() {
    this.onabort?.();
  }
  /** Answers with a body in JSON, or with a file. */
  answers(status: number, body: object = {}) {
    this.status = status;
    if (body instanceof Blob) this.response = body;
    else this.responseText = JSON.stringify(body);
    return act(async () => {
      await this.onload?.();
    });
  }
  breaks() {
    return act(async () => this.onerror?.());
  }
  /** So much of what is sent, or of what comes, has passed. */
  passes(loaded: number, total: number) {
    const share = { loaded, total, lengthComputable: true };
    return act(async () => (this.body ? this.upload.onprogress : this.onprogress)?.(share));
  }
}

/** The line of a test, in place of the browser's. */
export function stubLine(): void {
  Line.open = [];
  vi.stubGlobal("XMLHttpRequest", Line);
  vi.spyOn(URL, "createObjectURL").mockReturnValue("blob:x");
  vi.spyOn(URL, "revokeObjectURL").mockImplementation(() => {});
}

export const line = (place: number) => Line.open[place] as Line;
