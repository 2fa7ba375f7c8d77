import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import type { Schemas } from "../../../shared/api/client";
import { Scale } from "../../../shared/judging";
import { show } from "../../../test/render";
import type { LightTable, Photo, Question, Rating } from "../model";
import { Comparable } from "./Comparable";
import { Empty } from "./Empty";
import { Girths } from "./Girths";
import { JudgePanel } from "./JudgePanel";
import { PhotoNotes } from "./PhotoNotes";
import { PoseBar } from "./PoseBar";
import { Wipe } from "./Wipe";

afterEach(cleanup);

const photo = (over: object = {}): Photo =>
  ({
    id: "p1",
    pose: "B",
    counts: true,
    state: "seen",
    mirrored: false,
    frames: [],
    measured: { person: true, quality: [{ check: "roll", ok: true, says: "Upright." }], landmarks: {} },
    ...over,
  }) as unknown as Photo;

test("the scale runs from behind to ahead, and says what is chosen in words", () => {
  const rate = vi.fn();
  show(<Scale kind="standing" value={-1} onRate={rate} />);
  expect(screen.getAllByRole("button").map((stop) => stop.getAttribute("aria-keyshortcuts"))).toEqual([
    "1",
    "2",
    "3",
    "4",
    "5",
  ]);
  expect(screen.getByRole("button", { name: "behind", pressed: true })).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "clearly ahead" }));
  expect(rate).toHaveBeenCalledWith(2);
});

test("left against right leans to the larger side, left on the left", () => {
  const rate = vi.fn();
  show(<Scale kind="left-right" onRate={rate} />);
  const names = screen.getAllByRole("button").map((stop) => stop.getAttribute("aria-label"));
  expect(names[0]).toBe("left much larger");
  fireEvent.click(screen.getByRole("button", { name: "left much larger" }));
  expect(rate).toHaveBeenCalledWith(2);
});

const questions = [
  { region: "biceps.long", poses: ["BDB"], sides: true },
  { region: "calves.gastrocnemius", poses: ["B", "BDB"], sides: true },
] as unknown as Question[];
const ratings = [
  { round_id: "r", region: "biceps.long", pose: "BDB", kind: "standing", value: null },
] as unknown as Rating[];

function panel(over: object = {}) {
  const props = { onPick: vi.fn(), onRate: vi.fn() };
  show(
    <JudgePanel
      roundId="r"
      questions={questions}
      ratings={ratings}
      region="calves.gastrocnemius"
      pose="B"
      poseName={(id) => `pose ${id}`}
      sidesKnown
      {...props}
      {...over}
    />,
  );
  return props;
}

test("both questions are asked of a region, and the list says how far it has come", () => {
  const { onRate, onPick } = panel();
  expect(screen.getAllByRole("group").map((group) => within(group).getAllByRole("button").length)).toEqual([
    5, 5,
  ]);
  expect(screen.getByText("1 of 2 judged")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: /Can't tell/ }));
  expect(onRate).toHaveBeenCalledWith("standing", null);
  fireEvent.click(screen.getByRole("button", { name: /Biceps, long head/ }));
  expect(onPick).toHaveBeenCalledWith("biceps.long");
});

test("sides are not asked while nobody has said whether it is a mirror picture", () => {
  panel({ sidesKnown: false });
  expect(screen.getAllByRole("group")).toHaveLength(1);
  expect(screen.getByText(/once it is said whether the picture is a mirror picture/)).toBeTruthy();
});

test("when everything is judged the way leads to the verdict", () => {
  panel({ questions: questions.slice(0, 1), region: "biceps.long", pose: "BDB" });
  expect(screen.getByRole("link", { name: "To the verdict" })).toBeTruthy();
});

test("a picture says what is doubtful about it, and asks what only a person can know", () => {
  const said = vi.fn();
  const doubtful = photo({
    mirrored: null,
    measured: {
      person: true,
      landmarks: {},
      quality: [{ check: "roll", ok: false, says: "Rolled by 4 degrees." }],
    },
  });
  show(<PhotoNotes photo={doubtful} warnings={["Tilted."]} asks others={3} onMirrored={said} />);
  expect(screen.getAllByRole("listitem").map((item) => item.textContent)).toEqual([
    "Rolled by 4 degrees.",
    "Tilted.",
  ]);
  fireEvent.click(screen.getByRole("button", { name: "None of this round's pictures" }));
  expect(said).toHaveBeenCalledWith(false, true);
});

test("a picture in order says nothing", () => {
  const { container } = show(<PhotoNotes photo={photo()} asks others={0} onMirrored={vi.fn()} />);
  expect(container.textContent).toBe("");
});

test("poses show what is wrong with their picture; what is being looked at comes last", () => {
  const photos = [
    photo({ id: "w", pose: undefined, state: "waiting", measured: undefined }),
    photo({ mirrored: null }),
    photo({ id: "n", pose: "F", measured: { person: false, quality: [] } }),
  ];
  const names = new Map([
    ["B", "Back relaxed"],
    ["F", "Front relaxed"],
  ]);
  show(<PoseBar photos={photos} poseNames={names} pose="B" onPick={vi.fn()} onName={vi.fn()} />);
  expect(screen.getAllByRole("listitem").map((item) => item.textContent)).toEqual([
    "Front relaxedJudge with care",
    "Back relaxedTaken in a mirror?",
    "being looked at",
  ]);
});

test("the edge between two pictures moves with the arrow keys and stops at the pane's", () => {
  const move = vi.fn();
  show(<Wipe at={99} onMove={move} />);
  const edge = screen.getByRole("slider", { name: "Where the two pictures meet" });
  fireEvent.keyDown(edge, { key: "ArrowRight" });
  fireEvent.keyDown(edge, { key: "ArrowLeft" });
  expect(move.mock.calls).toEqual([[100], [97]]);
});

test("why no picture may be taken in is said where pictures would be", () => {
  show(<Empty refusal="there is no consent to photos" bar={null} />);
  expect(screen.getByRole("alert").textContent).toContain("There is no consent to photos.");
  expect(screen.getByRole("link", { name: "Go to the brief" })).toBeTruthy();
});

test("a picture in which nobody was found can be named, to be marked by hand", () => {
  const nobody = photo({
    id: "n",
    pose: undefined,
    measured: { person: false, quality: [], why_not: "nobody was found" },
  });
  show(
    <PoseBar photos={[nobody]} poseNames={new Map()} pose={undefined} onPick={vi.fn()} onName={vi.fn()} />,
  );
  expect(screen.getByText("nobody was found")).toBeTruthy();
  expect(screen.getByRole("combobox", { name: "Pose" })).toBeTruthy();
});

const seen = (site: string, side: string | undefined, over: object = {}) => ({
  site,
  side,
  cm: 37.24,
  error_pct: 2,
  change_error_pct: 1.7,
  from: "breadth-depth",
  pairs: 0,
  ...over,
});
const girths = (sites: object[], missing: object[] = [], practice?: object) =>
  ({ bodies: 32, practice, sites, missing }) as unknown as Schemas["RoundGirths"];

test("girths from pictures stand with their error, both sides of a site in one line, and the tape of the day beside", () => {
  show(
    <Girths
      girths={girths([
        seen("waist", undefined, { cm: 84, tape_cm: 83.1 }),
        seen("calf", "left"),
        seen("calf", "right", { from: "breadth" }),
      ])}
    />,
  );
  const region = screen.getByRole("region", { name: "Girths from these pictures" });
  const [, waist, calf] = within(region).getAllByRole("row");
  expect(waist?.textContent).toContain("84.0 ± 3.3tape 83.1");
  expect(waist?.textContent).toContain("front and side");
  // One side known by its breadth alone makes the pair no better.
  expect(calf?.textContent).toBe("Calf37.2 ± 1.537.2 ± 1.5the front alone");
  expect(region.textContent).toContain("32 made-up bodies");
  expect(region.textContent).toContain("One round with tape and pictures teaches");
});

test("what tape and pictures of one day have taught is said, and what is not shown stands under its reason", () => {
  const why = "no picture from the side: known by its breadth alone";
  show(
    <Girths
      girths={girths(
        [seen("waist", undefined, { pairs: 2 })],
        [
          { site: "waist", why },
          { site: "hip", why },
          { site: "arm-flexed", why: "no picture of a double biceps shows the bent arm" },
        ],
      )}
    />,
  );
  expect(screen.getByText(/Tape and pictures of 2 rounds/)).toBeTruthy();
  expect(screen.getByText(why).parentElement?.textContent).toBe(`waist, hip${why}`);
});

test("how many real people pull the constants is said once there are some", () => {
  show(<Girths girths={girths([seen("waist", undefined)], [], { pairs: 9, clients: 4 })} />);
  expect(
    screen.getByText(/Pulled towards real people by 9 rounds with tape and pictures of 4 clients here\./),
  ).toBeTruthy();
});

test("without any picture that shows a girth nothing is said of girths", () => {
  show(<Girths girths={girths([])} />);
  expect(screen.queryByRole("region")).toBeNull();
});

const compared = (change: object, asking?: "F") => {
  const [onLook, onAsk] = [vi.fn(), vi.fn()];
  const table = {
    rounds: [],
    questions: [],
    ratings: [],
    girths: girths([]),
    spoilt: [],
    asked: [],
    ...change,
  };
  show(
    <Comparable
      roundId="r"
      table={table as unknown as LightTable}
      poses={[{ id: "F", name: "Front relaxed" }]}
      asking={asking}
      onAsk={onAsk}
      shown="B"
      onLook={onLook}
      onError={() => {}}
    />,
  );
  return { onLook, onAsk };
};
const spoilt = [{ pose: "F", says: "The body is turned by about 16 degrees: stand square to the camera." }];

test("a picture that cannot be compared is told before anything is judged, with a way to it", () => {
  const { onLook, onAsk } = compared({ spoilt });
  expect(screen.getByRole("alert").textContent).toMatch(
    /^Front relaxed The body is turned by about 16 degrees/,
  );
  fireEvent.click(screen.getByRole("button", { name: "Look at it" }));
  expect(onLook).toHaveBeenCalledWith({ pose: "F" });
  fireEvent.click(screen.getByRole("button", { name: "Ask for it again…" }));
  expect(onAsk).toHaveBeenCalledWith("F");
});

test("a pose that is asked for again is told as that, with its reason, and once only", () => {
  const ask = { pose: "F", reason: "Feet on the mark.", asked_by: "Mara", asked_at: "2026-03-02T09:00:00Z" };
  compared({ spoilt, asked: [ask] });
  expect(screen.getAllByRole("alert")).toHaveLength(1);
  expect(screen.getByRole("alert").textContent).toContain("“Feet on the mark.” Mara");
  expect(screen.getByRole("button", { name: "Take it back" })).toBeTruthy();
});

test("what is asked for needs a reason, which nobody fills in beforehand", () => {
  compared({ spoilt }, "F");
  const reason = screen.getByLabelText<HTMLTextAreaElement>("What is to be different");
  const send = () => screen.getByRole<HTMLButtonElement>("button", { name: "Ask" });
  expect([reason.value, send().disabled]).toEqual(["", true]);
  fireEvent.change(reason, { target: { value: "x".repeat(301) } });
  expect([screen.getByText("At most 300 characters.") !== null, send().disabled]).toEqual([true, true]);
  fireEvent.change(reason, { target: { value: "Feet on the mark." } });
  expect(send().disabled).toBe(false);
});

test("where the client's camera stands is shown in the coach's units", () => {
  compared({ set_up: { place: "on the shelf", height_cm: 104, distance_m: 3.2, lens: "main" } });
  expect(
    screen.getByText("The client's camera: on the shelf, lens 104 cm up, 320 cm away, main lens."),
  ).toBeTruthy();
});
