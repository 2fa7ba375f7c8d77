import { act, cleanup, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { type FeedMessage, useFeed } from ".";

/** What stands in for the browser's line to the server. */
class Line {
  static opened: Line[] = [];
  onopen?: () => void;
  onerror?: () => void;
  onmessage?: (event: { data: string }) => void;
  close = vi.fn();
  constructor() {
    Line.opened.push(this);
  }
}

beforeEach(() => {
  Line.opened = [];
  vi.stubGlobal("EventSource", Line);
  // A page without HTTPS has none.
  vi.stubGlobal("BroadcastChannel", undefined);
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const message = { kind: "reading" } as unknown as FeedMessage;

test("many fields listen on one line, each hears everything, and the last one hangs up", () => {
  const heard = [vi.fn(), vi.fn(), vi.fn()];
  const fields = heard.map((hear) => renderHook(() => useFeed(true, hear)));
  const [line] = Line.opened;
  expect(Line.opened).toHaveLength(1);
  act(() => line?.onopen?.());
  act(() => line?.onmessage?.({ data: JSON.stringify(message) }));
  for (const hear of heard) expect(hear).toHaveBeenCalledExactlyOnceWith(message);
  expect(fields.map(({ result }) => result.current)).toEqual([true, true, true]);
  for (const field of fields.slice(1)) field.unmount();
  expect(line?.close).not.toHaveBeenCalled();
  fields[0]?.unmount();
  expect(line?.close).toHaveBeenCalledOnce();
});

test("a line that breaks is told to whoever listens", () => {
  const field = renderHook(() => useFeed(true, () => {}));
  act(() => Line.opened[0]?.onopen?.());
  act(() => Line.opened[0]?.onerror?.());
  expect(field.result.current).toBe(false);
});

test("nobody who does not want to hear opens a line", () => {
  renderHook(() => useFeed(false, () => {}));
  expect(Line.opened).toHaveLength(0);
});
