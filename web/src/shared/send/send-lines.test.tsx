import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { Line, line, stubLine } from "../../test/line";
import { show } from "../../test/render";
import { Fetch, SendLines } from ".";
import { nameIn } from "./Fetch";

beforeEach(stubLine);
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

test("each file has its own progress, its own reason, and can be stopped or tried again on its own", () => {
  const [stop, retry] = [vi.fn(), vi.fn()];
  const one = { to: undefined, share: 0.42 };
  show(
    <SendLines
      sent={[
        { ...one, key: 1, name: "front.jpg", state: "sending" },
        { ...one, key: 2, name: "notes.txt", state: "failed", why: "this is not a JPEG: it is a text file" },
      ]}
      stop={stop}
      retry={retry}
    />,
  );
  expect(screen.getByText("42 %")).toBeTruthy();
  expect(screen.getByRole("alert").textContent).toBe("this is not a JPEG: it is a text file");
  fireEvent.click(screen.getByRole("button", { name: "Stop" }));
  fireEvent.click(screen.getByRole("button", { name: "Try again" }));
  expect([stop.mock.calls, retry.mock.calls]).toEqual([[[1]], [[2]]]);
});

const backup = () => {
  show(<Fetch href="/backup">Backup</Fetch>);
  fireEvent.click(screen.getByRole("link", { name: "Backup" }));
};

test("a file is being put together until its size is known, and is kept under the server's name for it", async () => {
  const kept: string[] = [];
  vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(function (this: HTMLAnchorElement) {
    kept.push(this.download);
  });
  backup();
  expect(screen.getByRole("progressbar").hasAttribute("value")).toBe(false);
  await line(0).passes(2, 8);
  expect(screen.getByText("25 %")).toBeTruthy();
  line(0).answerHeaders["Content-Disposition"] = 'attachment; filename="orthomer-2026.zip"';
  await line(0).answers(200, new Blob(["zip"]));
  expect(kept).toEqual(["orthomer-2026.zip"]);
  expect(screen.queryByRole("progressbar")).toBeNull();
});

test("a second press while it comes asks for nothing more, and it can be stopped", () => {
  backup();
  fireEvent.click(screen.getByRole("link", { name: "Backup" }));
  expect(Line.open).toHaveLength(1);
  fireEvent.click(screen.getByRole("button", { name: "Stop" }));
  expect(screen.queryByRole("progressbar")).toBeNull();
});

test("why it does not come is said beside it in the server's words", async () => {
  backup();
  const refusal = { status: 403, title: "", detail: "Only an owner may take all out." };
  await line(0).answers(403, new Blob([JSON.stringify(refusal)]));
  await waitFor(() => expect(screen.getByRole("alert").textContent).toBe("Only an owner may take all out."));
});

test.each([
  ['attachment; filename="client-7.zip"', "client-7.zip"],
  ["attachment; filename=notes.csv", "notes.csv"],
  [null, undefined],
])("%s names %s", (header, name) => {
  expect(nameIn(header)).toBe(name);
});
