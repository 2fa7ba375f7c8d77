import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import type { Schemas } from "../../../shared/api/client";
import { Line, line, stubLine } from "../../../test/line";
import { show } from "../../../test/render";
import { linkToken } from "../token";
import { Pictures } from "./Pictures";
import { SharedPart } from "./SharedPart";

const TOKEN = "0123456789abcdef".repeat(4);

beforeEach(() => {
  stubLine();
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

const wanted = {
  round_on: "2026-03-02",
  refusal: null,
  poses: [
    { pose: "F", name: "Front relaxed", sent: 0 },
    { pose: "B", name: "Back relaxed", sent: 2 },
  ],
} as unknown as Schemas["PhotosWanted"];

const file = new File(["x"], "front.jpg", { type: "image/jpeg" });

function pictures(change: object = {}) {
  const onSent = vi.fn();
  show(<Pictures token={TOKEN} wanted={{ ...wanted, ...change }} onSent={onSent} />);
  return { onSent };
}

const take = (pose: string) =>
  fireEvent.change(screen.getByLabelText(`Take the picture: ${pose}`), { target: { files: [file] } });

test("each pose says how many were sent, and offers another", () => {
  pictures();
  const lines = screen.getAllByRole("listitem").map((line) => line.textContent);
  expect(lines).toEqual(["Front relaxed0 sentTake", "Back relaxed2 sentAnother"]);
});

test("a picture goes with its pose, whether it is mirrored, and the link's own key", async () => {
  const { onSent } = pictures();
  fireEvent.click(screen.getByLabelText("I take them in a mirror"));
  take("Front relaxed");
  const { path, headers, body } = line(0);
  expect([path, headers.Authorization]).toEqual([
    "/api/v1/my/photos?pose=F&mirrored=true",
    `Bearer ${TOKEN}`,
  ]);
  expect(body).toBe(file);
  await line(0).answers(201);
  expect(onSent).toHaveBeenCalledTimes(1);
});

test("the next pose is taken while one is on its way, and each says how far it is", async () => {
  pictures();
  take("Front relaxed");
  take("Back relaxed");
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
  ["that the line broke off", (one: Line) => one.breaks(), "The line broke off. Nothing of it was kept."],
] as const)("a picture that was not sent says %s and can be sent again", async (_, answer, says) => {
  const { onSent } = pictures();
  take("Front relaxed");
  await answer(line(0));
  expect(screen.getByRole("alert").textContent).toBe(says);
  expect(onSent).not.toHaveBeenCalled();
  fireEvent.click(screen.getByRole("button", { name: "Try again" }));
  expect(Line.open).toHaveLength(2);
});

test("another picture takes the place of the one that was refused, and of no other pose's", async () => {
  pictures();
  take("Front relaxed");
  take("Back relaxed");
  await line(0).answers(422, { status: 422, title: "", detail: "This is no picture." });
  await line(1).breaks();
  expect(screen.getAllByRole("alert")).toHaveLength(2);
  take("Front relaxed");
  expect(screen.getAllByRole("alert").map((alert) => alert.textContent)).toEqual([
    "The line broke off. Nothing of it was kept.",
  ]);
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
