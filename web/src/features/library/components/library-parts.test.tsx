import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { type Atlas, namesOf } from "../../../shared/api/atlas";
import { fetchClient } from "../../../shared/api/client";
import { show, atlas as small } from "../../../test/render";
import type { Exercise, Listed } from "../model";
import { ExerciseEditor } from "./ExerciseEditor";
import { ExerciseRow } from "./ExerciseRow";
import { RegionCard } from "./RegionCard";

// It asks the server; it has tests of its own.
vi.mock("./MovementBench", () => ({ MovementBench: () => null }));

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const atlas = {
  ...small,
  areas: ["elbow", "wrist"],
  takeovers: { momentum: "Momentum" },
  poses: [
    { id: "F", name: "Front relaxed" },
    { id: "B", name: "Back relaxed" },
  ],
  equipment: [
    { id: "dumbbell", name: "Dumbbells" },
    { id: "incline-bench", name: "Incline bench" },
  ],
} as unknown as Atlas;

const curl = {
  id: "incline-curl",
  name: "Incline dumbbell curl",
  family: "curl",
  equipment: ["dumbbell", "incline-bench"],
  sides: "either",
  targets: { "calves.gastrocnemius": 0.5, "biceps.long": 1 },
  hardest: ["L", "M"],
  stretch: 3,
  stability: 2,
  reps: [8, 12],
  effort: "small",
  loads_joint: ["elbow"],
  set_up: "Lie back on the incline.",
  cues: ["Curl without moving the upper arm."],
  faults: [{ fault: "Swinging", takes_over: "momentum" }],
  cautions: ["Not with a sore elbow."],
} as unknown as Listed;

function row(change: Partial<Listed> = {}, props: { region?: string; open?: boolean; own?: boolean } = {}) {
  const [onToggle, onEdit] = [vi.fn(), vi.fn()];
  const exercise = { ...curl, ...change };
  show(
    <ExerciseRow
      exercise={exercise}
      atlas={atlas}
      names={namesOf(atlas)}
      own={false}
      open={false}
      onToggle={onToggle}
      onEdit={props.own ? onEdit : undefined}
      {...props}
    />,
  );
  return { onToggle, onEdit };
}

test("a row names its main region and its kit, and says the picture of its range in words", () => {
  const { onToggle } = row();
  const face = screen.getByRole("button", { expanded: false });
  expect(face.textContent).toContain("Biceps, long head");
  expect(face.textContent).not.toContain("Gastrocnemius");
  expect(face.textContent).toContain("dumbbells, incline bench");
  expect(screen.getByRole("img", { name: "Hardest stretched, in the middle; stretch 3 of 3" })).toBeTruthy();
  fireEvent.click(face);
  expect(onToggle).toHaveBeenCalledTimes(1);
});

test.each([
  ["how it is done", "Curl without moving the upper arm."],
  ["what takes over, by name", "Swinging: taken over by momentum."],
  ["what else it works", "Also works Gastrocnemius."],
  ["whom it is not for", "Not with a sore elbow."],
  [
    "how it is held, counted and what it loads",
    "supported; one side or both; 8 to 12 repetitions; loads elbow",
  ],
] as const)("opened, a row says %s", (_, says) => {
  row({}, { open: true });
  expect(screen.getByText(says)).toBeTruthy();
});

test("what is held is counted in seconds", () => {
  row({ reps: undefined, seconds: [20, 40], loads_joint: [] }, { open: true });
  expect(screen.getByText("supported; one side or both; 20 to 40 s")).toBeTruthy();
});

test("only an own exercise can be changed", () => {
  row({}, { open: true });
  expect(screen.queryByRole("button", { name: "Change it…" })).toBeNull();
  cleanup();
  const { onEdit } = row({}, { open: true, own: true });
  fireEvent.click(screen.getByRole("button", { name: "Change it…" }));
  expect(onEdit).toHaveBeenCalledTimes(1);
});

test.each([
  ["biceps.long", false],
  ["calves.gastrocnemius", true],
] as const)("asked for %s the row stands back: %s", (region, lesser) => {
  row({}, { region });
  expect(screen.getByRole("listitem").hasAttribute("data-lesser")).toBe(lesser);
});

test("what is advised against says why", () => {
  row({ advised_against: "The practice no longer proposes it." });
  expect(screen.getByText("The practice no longer proposes it.")).toBeTruthy();
});

test("a region says what it does, why it lags, who takes over, and where it is seen", () => {
  const onClear = vi.fn();
  const region = {
    id: "biceps.long",
    name: "Biceps, long head",
    action: "Bends the elbow.",
    lags_because: "Curls in front of the body.",
    taken_over_by: ["calves.gastrocnemius", "momentum"],
    poses: ["F"],
  } as unknown as Atlas["regions"][number];
  show(<RegionCard region={region} atlas={atlas} onClear={onClear} />);
  const facts = [...document.querySelectorAll("dd")].map((fact) => fact.textContent);
  expect(facts).toEqual([
    "Bends the elbow.",
    "Curls in front of the body.",
    "Gastrocnemius, Momentum",
    "Front relaxed",
  ]);
  fireEvent.click(screen.getByRole("button", { name: "All regions" }));
  expect(onClear).toHaveBeenCalledTimes(1);
});

function editor(exercise?: Exercise) {
  const onClose = vi.fn();
  show(<ExerciseEditor open atlas={atlas} revision={4} exercise={exercise} onClose={onClose} />);
  return onClose;
}

const save = () => fireEvent.click(screen.getByRole("button", { name: "Save the exercise" }));
const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

test("an own exercise is sent whole, under an id of its own, and the editor closes", async () => {
  const put = vi.fn(async (_: string, __: { body: { revision: number; exercise: Exercise } }) => ({
    data: {},
    response: new Response(),
  }));
  for (const method of ["PUT", "POST"] as const)
    vi.spyOn(fetchClient, method).mockImplementation(put as never);
  const onClose = editor();
  type("Name", "Spider curl, two bands");
  type("From", "12");
  type("To", "20");
  type("Cues", "Slow down.\n\n  Elbows still. ");
  save();
  await waitFor(() => expect(onClose).toHaveBeenCalledTimes(1));
  const { revision, exercise } = put.mock.calls[0]?.[1].body ?? {};
  expect(revision).toBe(4);
  expect(exercise).toMatchObject({
    id: "own-spider-curl-two-bands",
    family: "own-spider-curl-two-bands",
    reps: [12, 20],
    cues: ["Slow down.", "Elbows still."],
  });
});

test("what is wrong stands at its field, and what was typed stays", async () => {
  const errors = [
    { pointer: "/exercise/reps", says: "12 to 8 is no range: expected the lower number first" },
  ];
  const refused = async () => ({
    error: { status: 422, title: "Invalid", detail: "1 problem", errors },
    response: new Response(null, { status: 422 }),
  });
  for (const method of ["PUT", "POST"] as const)
    vi.spyOn(fetchClient, method).mockImplementation(refused as never);
  const onClose = editor({ ...curl, avoid: undefined } as unknown as Exercise);
  type("From", "12");
  type("To", "8");
  save();
  const alert = await screen.findByRole("alert");
  expect(alert.textContent).toContain("12 to 8 is no range");
  expect(alert.parentElement?.textContent).toMatch(/^Counted in/);
  expect(screen.getByLabelText<HTMLInputElement>("To").value).toBe("8");
  expect(onClose).not.toHaveBeenCalled();
});
