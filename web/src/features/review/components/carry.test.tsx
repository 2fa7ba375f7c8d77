import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient } from "../../../shared/api/client";
import { show } from "../../../test/render";
import type { Choices, Review } from "../model";
import { CarryBar } from "./CarryBar";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const none: Choices = { bring_up: [], areas: [], hold_back: [], overrides: [], share: [] };
const calf: Choices = { ...none, bring_up: ["calves.gastrocnemius"] };

function bar({ there, before }: { there: Choices; before?: Choices }) {
  const review = {
    client_id: "c",
    revision: 3,
    next: { id: "n", date: "2026-04-13" },
    next_choices: there,
    next_choices_revision: 5,
    decisions: {},
    regions: [],
    carried: false,
  } as unknown as Review;
  const put = vi
    .spyOn(fetchClient, "PUT")
    .mockImplementation((async () => ({ data: review, response: new Response() })) as never);
  const carried = vi.fn();
  show(
    <CarryBar
      roundId="r"
      review={review}
      decisions={{ "biceps.long": "keep" }}
      also={[]}
      tooMany={undefined}
      before={before}
      onCarried={carried}
    />,
  );
  return { put, carried };
}

const decide = () =>
  fireEvent.click(screen.getByRole("button", { name: "Decide and carry into 13 Apr 2026" }));
const sent = (put: ReturnType<typeof bar>["put"]) =>
  put.mock.calls.map((call) => (call[1] as unknown as { body: object }).body);

test("where nothing was chosen the decisions are carried at once", async () => {
  const { put, carried } = bar({ there: none });
  decide();
  await waitFor(() => expect(carried).toHaveBeenCalledWith(none));
  expect(sent(put)).toEqual([expect.objectContaining({ carry: "instead", revision: 3 })]);
});

test.each([
  ["Put beside them", "beside"],
  ["Replace them", "instead"],
  ["Leave them, only keep the decisions", undefined],
])("what was chosen there is asked about: %s", async (button, carry) => {
  const { put } = bar({ there: calf });
  decide();
  const dialog = within(screen.getByRole("dialog"));
  expect(dialog.getByText("To bring up: Gastrocnemius")).toBeTruthy();
  expect(put).not.toHaveBeenCalled();
  fireEvent.click(dialog.getByRole("button", { name: button }));
  await waitFor(() => expect(put).toHaveBeenCalledOnce());
  expect((sent(put)[0] as { carry?: string }).carry).toBe(carry);
});

test("one step back gives the next round what it had", async () => {
  const { put, carried } = bar({ there: none, before: calf });
  fireEvent.click(screen.getByRole("button", { name: "Take it back" }));
  await waitFor(() => expect(carried).toHaveBeenCalledWith(undefined));
  expect(sent(put)).toEqual([{ revision: 5, choices: calf }]);
});
