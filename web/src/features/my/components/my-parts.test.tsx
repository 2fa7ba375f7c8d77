import "fake-indexeddb/auto";
import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import type { Schemas } from "../../../shared/api/client";
import { Line, line, stubLine } from "../../../test/line";
import { show } from "../../../test/render";
import { forgetPictures, useWaiting, waitingCount } from "../../capture";
import { linkToken } from "../token";
import { Pictures } from "./Pictures";
import { SharedPart } from "./SharedPart";

const TOKEN = "0123456789abcdef".repeat(4);

beforeEach(async () => {
  stubLine();
  await forgetPictures(TOKEN);
  localStorage.clear();
  window.location.hash = "";
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

test("the token behind the # is kept on this phone and taken out of the address", () => {
  window.location.hash = TOKEN;
  expect(linkToken()).toBe(TOKEN);
  expect(window.location.href).not.toContain(TOKEN);
  expect(linkToken(), "and known when the page is opened again").toBe(TOKEN);
});

test.each(["", "abc", TOKEN.toUpperCase(), `${TOKEN}0`])("%o is no token", (hash) => {
  window.location.hash = hash;
  expect(linkToken()).toBeUndefined();
});

const asked: Schemas["PicturesAsked"] = {
  round_on: "2026-03-02",
  poses: [
    { pose: "F", name: "Front relaxed", sent: 0 },
    { pose: "B", name: "Back relaxed", sent: 2 },
  ],
};

const file = new File(["x"], "front.jpg", { type: "image/jpeg" });

function Shown({ change }: { change: object }) {
  return <Pictures token={TOKEN} asked={{ ...asked, ...change }} waiting={useWaiting(TOKEN)} />;
}
const pictures = (change: object = {}) => show(<Shown change={change} />);

/** A picture is on its way as soon as the phone has locked it up. */
async function take(pose: string) {
  const before = Line.open.length;
  fireEvent.change(screen.getByLabelText(`Take the picture: ${pose}`), { target: { files: [file] } });
  await waitFor(() => expect(Line.open.length).toBe(before + 1));
}

test("each pose says how many were sent, where any was, and offers another", () => {
  pictures();
  const lines = screen.getAllByRole("listitem").map((line) => line.textContent);
  expect(lines).toEqual(["Front relaxedTake", "Back relaxed2 sentAnother"]);
});

test("a picture goes with its pose, whether it is mirrored, and the link's own key", async () => {
  pictures();
  fireEvent.click(screen.getByLabelText("I take them in a mirror"));
  await take("Front relaxed");
  const { path, headers, body } = line(0);
  expect([path, headers.Authorization]).toEqual([
    "/api/v1/my/photos?pose=F&mirrored=true",
    `Bearer ${TOKEN}`,
  ]);
  expect(body).toBe(file);
  expect(await waitingCount(TOKEN), "it waits on the phone").toBe(1);
  await line(0).answers(204);
  await waitFor(async () => expect(await waitingCount(TOKEN), "and is gone when it was sent").toBe(0));
});

test("the next pose is taken while one is on its way, and each says how far it is", async () => {
  pictures();
  await take("Front relaxed");
  await take("Back relaxed");
  await line(0).passes(1, 4);
  const [front, back] = screen.getAllByRole("progressbar");
  expect([front, back].map((bar) => bar?.getAttribute("value"))).toEqual(["0.25", "0"]);
  expect(screen.getByText("25 %")).toBeTruthy();
});

test.each([
  [
    "why the studio does not take it",
    (one: Line) => one.answers(422, { status: 422, title: "", detail: "This is no picture." }),
    "This is no picture.",
  ],
  ["that the line broke off", (one: Line) => one.breaks(), "Waits on this phone, locked, for a line."],
] as const)("a picture that was not sent says %s and can be sent again", async (_, answer, says) => {
  pictures();
  await take("Front relaxed");
  await answer(line(0));
  expect(screen.getByRole("alert").textContent).toBe(says);
  expect(await waitingCount(TOKEN)).toBe(1);
  fireEvent.click(screen.getByRole("button", { name: "Try again" }));
  expect(Line.open).toHaveLength(2);
});

test("another picture takes the place of the one that was refused, and of no other pose's", async () => {
  pictures();
  await take("Front relaxed");
  await take("Back relaxed");
  await line(0).answers(422, { status: 422, title: "", detail: "This is no picture." });
  await line(1).breaks();
  expect(screen.getAllByRole("alert")).toHaveLength(2);
  await take("Front relaxed");
  expect(screen.getAllByRole("alert").map((alert) => alert.textContent)).toEqual([
    "Waits on this phone, locked, for a line.",
  ]);
});

test("what was not sent the last time goes on its way when the page is opened again", async () => {
  pictures();
  await take("Front relaxed");
  cleanup();
  pictures();
  await waitFor(() => expect(Line.open).toHaveLength(2));
  expect(line(1).path).toBe(line(0).path);
});

test("what waits is sent when the line is back", async () => {
  pictures();
  await take("Front relaxed");
  await line(0).breaks();
  window.dispatchEvent(new Event("online"));
  await waitFor(() => expect(Line.open).toHaveLength(2));
});

test("a pose that is asked for once more says why, and one that cannot be compared says so", () => {
  const [front, back] = asked.poses;
  pictures({
    poses: [
      { ...front, sent: 1, again: "Feet on the mark." },
      { ...back, doubt: "The feet are cut off." },
    ],
  });
  expect(screen.getByText("Once more, please: Feet on the mark.")).toBeTruthy();
  expect(screen.getByText("The feet are cut off.")).toBeTruthy();
});

test("a picture that was refused can be let go, and is gone from the phone", async () => {
  pictures();
  await take("Front relaxed");
  await line(0).answers(422, { status: 422, title: "", detail: "This is no picture." });
  fireEvent.click(screen.getByRole("button", { name: "Let go" }));
  expect(screen.queryByRole("alert")).toBeNull();
  await waitFor(async () => expect(await waitingCount(TOKEN)).toBe(0));
});

test("who may not send pictures reads why, and is offered none", () => {
  pictures({ refusal: "No picture is taken in without consent." });
  expect(screen.getByText("No picture is taken in without consent.")).toBeTruthy();
  expect(screen.queryByRole("listitem")).toBeNull();
});

const nothing = {
  date: null,
  priorities: [],
  areas: [],
  standings: [],
  sides: [],
  girths: [],
  photos: [],
} as unknown as Schemas["SharedView"];

const shared = (change: object) => show(<SharedPart token={TOKEN} shared={{ ...nothing, ...change }} />);

test("what is not shared is not there, not even as a heading", () => {
  shared({ date: "2026-03-02", priorities: [{ region: "biceps.long", name: "Biceps, long head" }] });
  expect(screen.getAllByRole("heading").map((heading) => heading.textContent)).toEqual([
    "What you bring up now",
  ]);
  cleanup();
  shared({});
  expect(screen.getByText("Your coach shares nothing here yet.")).toBeTruthy();
});

const girth = (change: object) => ({ site: "calf", name: "Calf", value_cm: 37.1, real: true, ...change });

test.each([
  ["a real change", girth({ change_cm: 0.8 }), "Calf 37.1 cm+0.8"],
  ["a change that may be none", girth({ change_cm: 0.3, real: false }), "Calf 37.1 cmno sure change"],
  ["a first measurement", girth({ change_cm: null, real: false }), "Calf 37.1 cm"],
] as const)("%s is shown as what it is", (_, one, says) => {
  shared({ girths: [one] });
  const heading = screen.getByRole("heading", { name: "Girths" });
  expect(heading.nextElementSibling?.textContent).toBe(says);
});

test("sides within error are called alike", () => {
  const side = { site: "calf", name: "Calf", left_cm: 37.1, right_cm: 37.3 };
  shared({ sides: [{ ...side, verdict: "within-error" }] });
  expect(screen.getByText("alike")).toBeTruthy();
  cleanup();
  shared({ sides: [{ ...side, verdict: "left-smaller" }] });
  expect(screen.queryByText("alike")).toBeNull();
});

test("a shared picture is fetched with the link's key and let go with the page", async () => {
  const get = vi.fn(async () => new Response(new Blob(["x"])));
  vi.stubGlobal("fetch", get);
  const make = vi.spyOn(URL, "createObjectURL").mockReturnValue("blob:one");
  const letGo = vi.spyOn(URL, "revokeObjectURL").mockImplementation(() => {});
  shared({ photos: [{ id: "p", pose: "F", date: "2026-03-02" }] });
  const image = await within(screen.getByRole("figure")).findByRole("img", { name: "F 2 Mar 2026" });
  expect(image.getAttribute("src")).toBe("blob:one");
  expect(get).toHaveBeenCalledWith("/api/v1/my/photos/p/view", {
    headers: { Authorization: `Bearer ${TOKEN}` },
  });
  expect(make).toHaveBeenCalledTimes(1);
  cleanup();
  expect(letGo).toHaveBeenCalledWith("blob:one");
});
