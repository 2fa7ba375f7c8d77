import { act, cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { App } from "antd";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import type { Atlas } from "../../../shared/api/atlas";
import { fetchClient, type Schemas } from "../../../shared/api/client";
import { brief } from "../../../test/brief";
import { show, atlas as small } from "../../../test/render";
import type { Brief } from "../model";
import { KeptBrief } from "./KeptBrief";

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const atlas = {
  ...small,
  looks: [{ id: "balanced", name: "Balanced", reason: "", weights: {} }],
  kits: [{ id: "home", name: "Home", items: ["dumbbell"] }],
  equipment: [{ id: "dumbbell", name: "Dumbbells", always: false }],
  screens: [],
  schools: [],
  readiness: [],
} as unknown as Atlas;

const stored = (change: Partial<Brief> = {}, revision = 1) =>
  ({ id: "c", revision, brief: { ...brief, ...change } }) as unknown as Schemas["ClientView"];

type Body = { revision: number; brief: Brief };

/** A server that keeps one brief, has a rule about stature, and refuses an older revision. */
function server() {
  const state = { now: stored() };
  const put = vi.fn(async (_: string, { body }: { body: Body }) => {
    const refuse = (status: number, detail: string, errors: object[] = []) => ({
      error: { status, title: "", detail, errors },
      response: new Response(null, { status }),
    });
    if (body.revision !== state.now.revision)
      return refuse(409, "this brief was saved elsewhere since you opened it");
    if (body.brief.height_cm > 250)
      return refuse(422, "1 problem", [{ pointer: "/brief/height_cm", says: "1800 cm is out of range" }]);
    state.now = stored(body.brief, body.revision + 1);
    return { data: state.now, response: new Response() };
  });
  vi.spyOn(fetchClient, "PUT").mockImplementation(put as never);
  show(
    <App>
      <KeptBrief atlas={atlas} client={state.now} refetch={async () => state.now} />
    </App>,
  );
  return { state, put };
}

const field = (label: string) => screen.getByLabelText<HTMLInputElement>(label);
const type = async (label: string, value: string) => {
  await act(async () => {
    fireEvent.change(field(label), { target: { value } });
  });
};
const saved = (says: RegExp | string) =>
  waitFor(() => expect(screen.getAllByRole("status")[0]?.textContent).toMatch(says), { timeout: 3000 });

test("every change is kept on the way, without a button", async () => {
  const { state } = server();
  await type("Name", "Ada B.");
  await waitFor(() => expect(state.now.brief.name).toBe("Ada B."), { timeout: 3000 });
  await saved("Saved");
});

test("what is wrong stands at its field, goes when it is put right, and nothing stored is lost meanwhile", async () => {
  const { state } = server();
  await type("Stature, cm", "1800");
  const says = await screen.findByText("1800 cm is out of range", {}, { timeout: 3000 });
  expect(says.closest(".ant-form-item")?.textContent).toMatch(/^Stature, cm/);
  expect(state.now.brief.height_cm).toBe(170);
  await saved(/^Not saved/);
  await type("Stature, cm", "180");
  await waitFor(() => expect(state.now.brief.height_cm).toBe(180), { timeout: 3000 });
  await waitFor(() => expect(screen.queryByText("1800 cm is out of range")).toBeNull());
});

test("a step back brings the field back and is kept too", async () => {
  const { state } = server();
  await type("Name", "Ida");
  await waitFor(() => expect(state.now.brief.name).toBe("Ida"), { timeout: 3000 });
  await act(async () => {
    fireEvent.click(screen.getByRole("button", { name: "Undo" }));
  });
  expect(field("Name").value).toBe("Ada Elmwood");
  await waitFor(() => expect(state.now.brief.name).toBe("Ada Elmwood"), { timeout: 3000 });
});

test("of two who wrote, the later one decides, and theirs are shown when they are taken", async () => {
  const { state } = server();
  state.now = stored({ name: "Adele", days_per_week: 5 }, 2);
  await type("Name", "Ida");
  const note = await screen.findByRole("alert", {}, { timeout: 3000 });
  expect(note.textContent).toMatch(/saved elsewhere.*Name: you typed Ida, stored is Adele/);
  await act(async () => {
    fireEvent.click(within(note).getByRole("button", { name: "Take what is stored" }));
  });
  expect([field("Name").value, field("Days a week").value]).toEqual(["Adele", "5"]);
  expect(state.now.brief.name).toBe("Adele");
});
