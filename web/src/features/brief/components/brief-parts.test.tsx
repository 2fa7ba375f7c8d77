import { act, cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { App, Form, type FormInstance } from "antd";
import { type ReactNode, useEffect } from "react";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient, type Schemas } from "../../../shared/api/client";
import { today } from "../../../shared/format";
import { atlas, show } from "../../../test/render";
import type { Brief } from "../model";
import { ConsentField } from "./ConsentField";
import { EquipmentField } from "./EquipmentField";
import { LookField } from "./LookField";
import { PainFields } from "./PainFields";
import { ReadinessField } from "./ReadinessField";
import { UsualWeekSection } from "./UsualWeekSection";

afterEach(() => {
  cleanup();
  localStorage.clear();
  vi.restoreAllMocks();
});

function Held({
  part,
  initial,
  onForm,
}: {
  part: ReactNode;
  initial: Partial<Brief>;
  onForm: (form: FormInstance) => void;
}) {
  const [form] = Form.useForm();
  useEffect(() => onForm(form), [form, onForm]);
  return (
    <App>
      <Form form={form} initialValues={initial}>
        {part}
      </Form>
    </App>
  );
}

/** A part of the brief in its form, and what the form holds. */
function inForm(initial: Partial<Brief>, part: ReactNode): () => Partial<Brief> {
  let held: FormInstance | undefined;
  const keep = (form: FormInstance) => {
    held = form;
  };
  show(<Held part={part} initial={initial} onForm={keep} />);
  return () => held?.getFieldsValue(true) ?? {};
}

/** Presses a button, and waits until the form has followed. */
async function press(name: string | RegExp) {
  await act(async () => {
    fireEvent.click(screen.getByRole("button", { name }));
  });
}

const questions = [
  { id: "heart", asks: "Has a doctor said that your heart is not well?" },
  { id: "chest", asks: "Does your chest hurt when you exert yourself?" },
] as Schemas["ReadinessQuestion"][];

async function answer(question: number, word: "yes" | "no") {
  const group = await screen.findByRole("radiogroup", { name: questions[question]?.asks });
  await act(async () => {
    fireEvent.click(within(group).getByRole("radio", { name: new RegExp(word, "i") }));
  });
}

test("readiness is asked today, and a yes wants a clearance until it is there", async () => {
  const values = inForm({}, <ReadinessField questions={questions} />);
  expect(screen.getByText(/Not asked yet/)).toBeTruthy();
  await press("Ask the questions");
  expect(screen.queryAllByRole("radio", { checked: true })).toEqual([]);
  await answer(1, "yes");
  expect(values().readiness).toBeUndefined();
  await answer(0, "no");
  expect(values().readiness).toEqual({ asked_on: today(), yes: ["chest"] });
  await screen.findByText(/^Get medical clearance first/);
  await press("Record the clearance");
  const note = screen.getByRole<HTMLTextAreaElement>("textbox", { name: "By whom, with what limits" });
  expect(note.value).toBe("");
  await act(async () => {
    fireEvent.change(note, { target: { value: "Dr. Lund: no maximal tests." } });
  });
  await press("Keep the clearance");
  expect(values().clearance).toEqual({ given_on: today(), note: "Dr. Lund: no maximal tests." });
  await screen.findByText("Cleared.");
  await answer(1, "no");
  await waitFor(() => expect(screen.queryByRole("status")).toBeNull());
});

test("a clearance from before the answers is none", async () => {
  inForm(
    {
      readiness: { asked_on: "2026-03-02", yes: ["heart"] },
      clearance: { given_on: "2025-11-01", note: "Dr." },
    },
    <ReadinessField questions={questions} />,
  );
  expect(screen.getByRole("status").textContent).toMatch(/^Get medical clearance first/);
});

const screens = [
  { id: "shoulder_flexion", name: "Shoulder flexion", how: "Lying.", normal_low_deg: 170 },
] as Schemas["Screen"][];

test("a painful area comes with a level, and goes again", async () => {
  const values = inForm({ pain: [] }, <PainFields screens={screens} />);
  await press("Add a painful area");
  expect(values().pain).toEqual([{ area: "shoulder", level: 1 }]);
  await press("Remove");
  expect(values().pain).toEqual([]);
});

test("of a range on one side alone nothing is kept, which stands at the other", async () => {
  const values = inForm({ screens: {} }, <PainFields screens={screens} />);
  fireEvent.change(screen.getByLabelText("Shoulder flexion left"), { target: { value: "160" } });
  expect(await screen.findByText("this side too")).toBeTruthy();
  fireEvent.change(screen.getByLabelText("Shoulder flexion right"), { target: { value: "165" } });
  await waitFor(() => expect(screen.queryByText("this side too")).toBeNull());
  expect(values().screens).toEqual({ shoulder_flexion_deg: { left: 160, right: 165 } });
});

const kits = [
  { id: "home", name: "Home", items: ["dumbbell", "band"] },
  { id: "gym", name: "Gym", items: ["barbell", "dumbbell"] },
] as Schemas["Kit"][];
const equipment = [
  { id: "floor", name: "Floor", always: true },
  { id: "dumbbell", name: "Dumbbells", always: false },
  { id: "barbell", name: "Barbell", always: false },
  { id: "band", name: "Bands", always: false },
] as Schemas["Equipment"][];

const there = () =>
  within(screen.getByRole("group", { name: "What there is to train with" }))
    .getAllByRole("button")
    .filter((button) => button.getAttribute("aria-pressed") === "true")
    .map((button) => button.textContent);

test("a kit is where to start; items are added and taken away", async () => {
  const values = inForm({ equipment: [] }, <EquipmentField kits={kits} equipment={equipment} />);
  await press("Home");
  expect(there()).toEqual(["Dumbbells", "Bands"]);
  await press("Barbell");
  await press("Bands");
  expect(values().equipment).toEqual(["dumbbell", "barbell"]);
  expect(screen.queryByRole("button", { name: "Floor" }), "what is always there is not asked").toBeNull();
});

test("home has its own days and equipment, and the gym's stays", async () => {
  const values = inForm({ equipment: ["barbell"] }, <EquipmentField kits={kits} equipment={equipment} />);
  fireEvent.click(screen.getByRole("radio", { name: "At home" }));
  expect(screen.getByText("All of the week is at the gym.")).toBeTruthy();
  await press("Some of it is at home");
  await press("Bands");
  expect(values().home).toEqual({ days_per_week: 1, equipment: ["band"] });
  expect(values().equipment).toEqual(["barbell"]);
  expect(screen.getByRole("radio", { name: "At home, 1 day" })).toBeTruthy();
  await press("Nothing at home");
  expect(values().home).toBeUndefined();
});

const looks = [
  { id: "taper", name: "Taper", reason: "Wide above.", weights: { delts: 1.5, "delts.anterior": 0.8 } },
] as unknown as Schemas["Look"][];
const regions = [
  { id: "delts.lateral", name: "Side delt" },
  { id: "delts.anterior", name: "Front delt" },
  { id: "calves.soleus", name: "Soleus" },
] as Schemas["Region"][];

const weights = () => screen.getAllByRole("status").map((weight) => weight.textContent);

test("the look's weights stand at its regions, and a coach's own beside them until they are the look's again", async () => {
  const values = inForm({ look: "taper", look_weights: {} }, <LookField looks={looks} regions={regions} />);
  expect(screen.getByText("Wide above.")).toBeTruthy();
  expect(weights(), "what is neutral is not listed").toEqual(["×1.5", "×0.8"]);
  await press("Side delt more");
  expect(values().look_weights).toEqual({ "delts.lateral": 1.6 });
  expect(screen.getByText("1 weight back to the look's")).toBeTruthy();
  await press("Side delt less");
  expect(values().look_weights).toEqual({});
  await press("Front delt less");
  await press(/back to the look's/);
  expect(values().look_weights).toEqual({});
});

const adult = { birth_date: "1990-04-01" };

test("nobody under 18 is asked for consent to pictures", async () => {
  inForm(
    { birth_date: `${new Date().getFullYear() - 15}-01-01` },
    <>
      <Form.Item name="birth_date">
        <input />
      </Form.Item>
      <ConsentField />
    </>,
  );
  expect(screen.queryByRole("button")).toBeNull();
});

test("consent is recorded for today, and before it is stored simply taken out again", async () => {
  const values = inForm(adult, <ConsentField />);
  await press("Record consent");
  expect(screen.queryAllByRole("checkbox", { checked: true })).toEqual([]);
  await act(async () => {
    fireEvent.click(screen.getByRole("checkbox", { name: "assessment" }));
  });
  expect(values().photo_consent).toEqual({ given_on: today(), purposes: ["assessment"] });
  const needed = await screen.findByRole<HTMLInputElement>("checkbox", { name: "assessment" });
  expect(needed.disabled).toBe(true);
  await press(/Withdraw/);
  expect(values().photo_consent).toBeUndefined();
});

test("withdrawing a stored consent is asked twice, as it removes the pictures", async () => {
  const post = vi
    .spyOn(fetchClient, "POST")
    .mockImplementation((async () => ({ data: { pictures: 4 }, response: new Response() })) as never);
  const brief = {
    ...adult,
    name: "Ada",
    photo_consent: { given_on: "2026-01-05", purposes: ["assessment"] },
  };
  const client = { id: "c", revision: 3, brief } as unknown as Schemas["ClientView"];
  const values = inForm(brief as Partial<Brief>, <ConsentField client={client} />);
  await press(/Withdraw/);
  expect(post).not.toHaveBeenCalled();
  const dialog = await screen.findByRole("dialog");
  fireEvent.click(within(dialog).getByRole("button", { name: /Keep/ }));
  expect(values().photo_consent).toBeDefined();
  await press(/Withdraw/);
  fireEvent.click(
    within(await screen.findByRole("dialog")).getByRole("button", { name: /^Withdraw|remove/i }),
  );
  await waitFor(() => expect(values().photo_consent).toBeUndefined());
  expect(post.mock.calls[0]?.[1]).toMatchObject({
    params: { path: { client_id: "c" } },
    body: { revision: 3 },
  });
});

const usual = (change: object = {}) =>
  ({
    revision: 0,
    week: undefined,
    sets_by_region: {},
    logged_sets: {},
    logged_since: null,
    ...change,
  }) as unknown as Schemas["UsualWeekView"];

function usualWeek(stored: Schemas["UsualWeekView"]) {
  const put = vi.fn(async (_: string, { body }: { body: { revision: number; week?: unknown } }) => ({
    data: usual({ revision: body.revision + 1, week: body.week }),
    response: new Response(),
  }));
  vi.spyOn(fetchClient, "PUT").mockImplementation(put as never);
  show(<UsualWeekSection clientId="c" atlas={atlas} stored={stored} refetch={async () => stored} />);
  return put;
}

test("sets of a usual week stand by region, most first", async () => {
  usualWeek(usual({ sets_by_region: { "calves.gastrocnemius": 4, "biceps.long": 9.5 } }));
  const rows = within(screen.getByRole("table")).getAllByRole("row");
  expect(rows.map((row) => row.textContent)).toEqual(["Biceps, long head9.5", "Gastrocnemius4"]);
});

test("an exercise of a usual week is changed and sent as a whole week", async () => {
  const curl = { session: 2, exercise: "incline-curl", sets: 3, one_sided: false };
  const put = usualWeek(usual({ week: { until: "2026-02-23", weeks: 4, exercises: [curl] } }));
  fireEvent.change(screen.getByLabelText("Incline dumbbell curl: Sets"), { target: { value: "5" } });
  fireEvent.click(screen.getByRole("checkbox", { name: "swung" }));
  await waitFor(() => expect(put).toHaveBeenCalled());
  expect(put.mock.calls.at(-1)?.[1].body).toEqual({
    revision: 0,
    week: { until: "2026-02-23", weeks: 4, exercises: [{ ...curl, sets: 5, swung: true }] },
  });
});
