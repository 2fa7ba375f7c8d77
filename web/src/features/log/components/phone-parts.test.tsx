import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { show } from "../../../test/render";
import type { EntryView, ExercisePart, Item } from "../model";
import { ExercisePage } from "./ExercisePage";
import { PainSheet } from "./PainSheet";
import { SideBySide } from "./SideBySide";
import { Stepper } from "./Stepper";

afterEach(cleanup);

const item = {
  item: {
    exercise: "db-curl",
    name: "Dumbbell curl",
    region: "biceps.long",
    sets: 2,
    reps: [8, 12],
    reserve: 1,
    rest_s: 75,
    scheme: "straight",
    order: 2,
    sides: "left-first",
    extra_sets_weaker: 0,
    progression: { step_kg: 2 },
  },
  set_up: "Sit upright.",
  cues: ["Elbow still."],
  faults: ["Swinging"],
  cautions: [],
  loads_joint: ["elbow"],
  target: { kind: "count", load_kg: 12, counts: [10, 9], why: "Keep the load, add repetitions." },
  last: { on: "2026-03-02", sets: [{ number: 1, side: "left", load_kg: 12, reps: 9 }] },
  instead: [
    { exercise: "cable-curl", name: "Cable curl", set_up: "", loads_joint: ["elbow"], seconds: false },
    { exercise: "band-curl", name: "Band curl", set_up: "", loads_joint: [], seconds: false },
  ],
  entries: [],
  feels: [],
  forms: [
    { form: "swung", says: "swung" },
    { form: "cut-short", says: "cut short" },
  ],
  variants: [{ id: "rope", name: "with a rope" }],
  set_up_fields: [{ name: "pulley_notch", says: "Pulley", unit: "notch", range: [0, 40], kit: [] }],
  lighter_sets: 1,
} as unknown as Item;

const version = (part: Partial<ExercisePart>): EntryView => ({
  entry: {
    id: "a",
    plan: "p",
    week: 1,
    day: 1,
    trained_on: "2026-03-04",
    at: "2026-03-04T18:00:00Z",
    part: { kind: "exercise", exercise: "db-curl", position: 2, scheme: "straight", sets: [], ...part },
  },
  written_by: "Ada",
  written_at: "2026-03-04T18:00:00Z",
});

function page(versions: EntryView[] = [], change: Partial<Item> = {}) {
  const onWrite = vi.fn();
  const onSet = vi.fn();
  const part = versions[0]?.entry.part as ExercisePart | undefined;
  show(
    <ExercisePage
      item={{ ...item, ...change }}
      versions={versions}
      areas={["elbow", "knee"]}
      lighter={false}
      current={() => ({ part, follows: part ? [versions[0]?.entry.id ?? ""] : [] })}
      onWrite={onWrite}
      onSet={onSet}
    />,
  );
  return { onWrite, onSet };
}

test("the weaker side is asked first, from the target", () => {
  const { onWrite, onSet } = page();
  expect(screen.getByLabelText<HTMLInputElement>("Load, kg").value).toBe("12");
  fireEvent.click(screen.getByRole("button", { name: "Set done" }));
  const [part, follows] = onWrite.mock.calls[0] ?? [];
  expect(part.sets).toEqual([
    expect.objectContaining({ number: 1, side: "left", load_kg: 12, reps: 10, reserve: 1 }),
  ]);
  expect(follows).toEqual([]);
  expect(onSet).toHaveBeenCalledWith({ number: 1, side: "left" });
});

test("the stronger side is held to the weaker one", () => {
  const { onWrite } = page([version({ sets: [{ number: 1, side: "left", load_kg: 12, reps: 8 }] })]);
  expect(screen.getByText(/as the other side: 12 kg × 8, no more/)).toBeTruthy();
  expect(screen.getByRole<HTMLButtonElement>("button", { name: "Repetitions +" }).disabled).toBe(true);
  fireEvent.change(screen.getByLabelText("Load, kg"), { target: { value: "16" } });
  fireEvent.click(screen.getByRole("button", { name: "Set done" }));
  const [part, follows] = onWrite.mock.calls[0] ?? [];
  expect(part.sets[1]).toMatchObject({ side: "right", load_kg: 12, reps: 8 });
  expect(follows).toEqual(["a"]);
});

test("a stopped exercise asks for no set and offers only what spares the joint", () => {
  const { onWrite } = page([version({ pain: { area: "elbow", level: 4 } })]);
  expect(screen.queryByRole("button", { name: "Set done" })).toBeNull();
  const stopped = screen.getByRole("alert");
  fireEvent.click(within(stopped).getByRole("button", { name: "Swap" }));
  expect(screen.queryByRole("button", { name: "Cable curl" })).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "Band curl" }));
  expect(onWrite.mock.calls[0]?.[0]).toMatchObject({
    instead: "band-curl",
    pain: { area: "elbow", level: 4, during: "db-curl" },
  });
});

test("what was logged twice is decided by an entry that follows both", () => {
  const other = { ...version({ sets: [{ number: 1, side: "left", reps: 11 }] }) };
  const both = [version({}), { ...other, entry: { ...other.entry, id: "b" } }];
  const { onWrite } = page(both);
  fireEvent.click(screen.getAllByRole("button", { name: "This one counts" })[1] as HTMLElement);
  expect(onWrite.mock.calls[0]?.[1]).toEqual(["a", "b"]);
});

test("set-up, cues and faults are one tap away", () => {
  page();
  expect(screen.queryByText("Sit upright.")).toBeNull();
  fireEvent.click(screen.getByRole("button", { name: "How" }));
  expect(
    screen.getByText("Sit upright.") && screen.getByText("Elbow still.") && screen.getByText("Swinging"),
  ).toBeTruthy();
});

const dropped = {
  ...item,
  item: {
    ...item.item,
    sides: "both",
    sets: 1,
    per_set: [
      {
        number: 1,
        reps: [8, 12],
        reserve: 0,
        load_pct: 100,
        parts: [{ kind: "drop", load_pct: 70, reps: [8, 10] }],
      },
    ],
  },
} as Item;

test("a drop that is planned has its row, from its share of the load, and is logged with its set", () => {
  const { onWrite } = page([], dropped);
  fireEvent.click(screen.getByRole("button", { name: "Drop done" }));
  expect(screen.getByLabelText("Drop: load").textContent).toBe("8 kg");
  fireEvent.click(screen.getByRole("button", { name: "Drop: how much +" }));
  fireEvent.click(screen.getByRole("button", { name: "Set done" }));
  expect(onWrite.mock.calls[0]?.[0].sets[0]).toMatchObject({
    load_kg: 12,
    reserve: 0,
    parts: [{ kind: "drop", load_kg: 8, reps: 9 }],
  });
});

test("a drop that was planned and not done is not logged", () => {
  const { onWrite } = page([], dropped);
  fireEvent.click(screen.getByRole("button", { name: "Set done" }));
  expect(onWrite.mock.calls[0]?.[0].sets[0].parts).toBeUndefined();
});

test("a load ten times the last is asked about before it is kept", () => {
  const { onWrite } = page([], { target: { ...item.target, load_kg: undefined } });
  fireEvent.change(screen.getByLabelText("Load, kg"), { target: { value: "120" } });
  fireEvent.click(screen.getByRole("button", { name: "Set done" }));
  expect(onWrite).not.toHaveBeenCalled();
  expect(screen.getByRole("alert").textContent).toContain("120 kg is ten times the 12 kg of before");
  fireEvent.click(screen.getByRole("button", { name: "Yes, keep it" }));
  expect(onWrite.mock.calls[0]?.[0].sets[0].load_kg).toBe(120);
});

test("help is logged as a load under nothing where the body's own weight is moved", () => {
  const { onWrite } = page([], { assistable: true });
  fireEvent.click(screen.getByRole("button", { name: "Help" }));
  expect(screen.getByLabelText<HTMLInputElement>("Help, kg").value).toBe("12");
  fireEvent.click(screen.getByRole("button", { name: "Set done" }));
  expect(onWrite.mock.calls[0]?.[0].sets[0].load_kg).toBe(-12);
});

test("what spoiled a set is told in two taps", () => {
  const { onWrite } = page([version({ sets: [{ number: 1, side: "left", load_kg: 12, reps: 8 }] })]);
  fireEvent.click(screen.getByRole("button", { name: "Form" }));
  fireEvent.click(screen.getByRole("button", { name: "swung", hidden: true }));
  expect(onWrite.mock.calls[0]?.[0]).toMatchObject({ form: ["swung"], sets: [{ reps: 8 }] });
});

test("how the station is set is shown before the first set and kept with what is logged", () => {
  const { onWrite } = page([], { item: { ...item.item, set_up: { pulley_notch: 7 }, note: "Slowly down." } });
  expect(screen.getByText("Slowly down.")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Pulley 7 notch" }));
  fireEvent.change(screen.getByLabelText("Pulley, notch"), { target: { value: "9" } });
  expect(onWrite.mock.calls[0]?.[0]).toMatchObject({ set_up: { pulley_notch: 9 } });
  fireEvent.change(screen.getByLabelText("Pulley, notch"), { target: { value: "90" } });
  expect(screen.getByText("between 0 and 40")).toBeTruthy();
  expect(onWrite).toHaveBeenCalledOnce();
});

test("pain takes two taps where the joint that is loaded hurts", () => {
  const onTell = vi.fn();
  show(<PainSheet open areas={["knee", "elbow"]} likely="elbow" onClose={() => {}} onTell={onTell} />);
  fireEvent.click(screen.getByRole("button", { name: "5", hidden: true }));
  expect(onTell).toHaveBeenCalledWith(expect.objectContaining({ area: "elbow", level: 5 }));
});

test("a pain without a place asks for the place instead of being lost", () => {
  const onTell = vi.fn();
  show(<PainSheet open areas={["knee", "elbow"]} onClose={() => {}} onTell={onTell} />);
  fireEvent.click(screen.getByRole("button", { name: "4", hidden: true }));
  expect(screen.getByRole("alert", { hidden: true }).textContent).toContain("Stop this exercise");
  const done = screen.getByRole("button", { name: "Done", hidden: true }) as HTMLButtonElement;
  expect(done.disabled).toBe(true);
  expect(onTell).not.toHaveBeenCalled();
  fireEvent.click(screen.getByRole("button", { name: "knee", hidden: true }));
  expect(onTell).toHaveBeenCalledWith({ area: "knee", level: 4 });
  expect(done.disabled).toBe(false);
});

test("a version says what was done, by whom and when", () => {
  const onChoose = vi.fn();
  const one = version({ sets: [{ number: 1, load_kg: 12, reps: 10 }] });
  show(<SideBySide of="Curl" versions={[one]} onChoose={onChoose} />);
  expect(screen.getByText(/12 kg × 10/).textContent).toContain("Ada");
  fireEvent.click(screen.getByRole("button", { name: "This one counts" }));
  expect(onChoose).toHaveBeenCalledWith(one);
});

test.each([
  ["a decimal comma is a decimal", "12,5", 12.5],
  ["more than allowed is cut", "30", 20],
  ["nothing is no load", "", undefined],
])("a typed number: %s", (_, text, value) => {
  const onType = vi.fn();
  show(
    <Stepper
      label="Load"
      unit="kg"
      value={10}
      optional
      most={20}
      onStep={() => {}}
      onType={onType}
      onFits={() => {}}
    />,
  );
  fireEvent.change(screen.getByLabelText("Load, kg"), { target: { value: text } });
  expect(onType).toHaveBeenCalledWith(value);
});

test.each([
  ["a word", "twelve", "That is no number"],
  ["a lost decimal point", "1250", "More than 600 kg: is there a digit too many?"],
])("%s is said at the set and nothing is logged", (_, text, says) => {
  const { onWrite } = page();
  fireEvent.change(screen.getByLabelText("Load, kg"), { target: { value: text } });
  expect(screen.getByRole("alert").textContent).toContain(says);
  const done = screen.getByRole<HTMLButtonElement>("button", { name: "Set done" });
  fireEvent.click(done);
  expect([done.disabled, onWrite.mock.calls.length]).toEqual([true, 0]);
  fireEvent.change(screen.getByLabelText("Load, kg"), { target: { value: "12.5" } });
  fireEvent.click(screen.getByRole("button", { name: "Set done" }));
  expect(onWrite).toHaveBeenCalledOnce();
});
