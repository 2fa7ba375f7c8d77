import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient } from "../../../shared/api/client";
import { show } from "../../../test/render";
import { Notes } from "./Notes";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

/** A studio that keeps one note, which somebody else may have changed since it was read. */
function studio(note: string) {
  const kept = { note };
  vi.spyOn(fetchClient, "GET").mockImplementation((async () => ({
    data: { ...kept },
    response: new Response(),
  })) as never);
  const put = vi.fn(async (_: string, { body }: { body: { was: string; note: string } }) => {
    if (body.was !== kept.note)
      return {
        error: { status: 409, detail: "saved elsewhere" },
        response: new Response(null, { status: 409 }),
      };
    kept.note = body.note;
    return { data: { note: body.note }, response: new Response() };
  });
  vi.spyOn(fetchClient, "PUT").mockImplementation(put as never);
  show(<Notes clientId="c" roundId="" />);
  return { kept, put };
}

const field = () => screen.findByLabelText<HTMLTextAreaElement>(/^On the client/);

test("a note is kept when its field is left, and only when it changed", async () => {
  const { kept, put } = studio("Left wrist.");
  const area = await field();
  fireEvent.blur(area);
  fireEvent.change(area, { target: { value: "Left wrist, 2019." } });
  fireEvent.blur(area);
  await waitFor(() => expect(kept.note).toBe("Left wrist, 2019."));
  expect(put).toHaveBeenCalledOnce();
});

test("what somebody else wrote meanwhile is shown, and both can be kept", async () => {
  const { kept } = studio("");
  const area = await field();
  fireEvent.change(area, { target: { value: "Right knee." } });
  kept.note = "Left wrist.";
  fireEvent.blur(area);
  expect((await screen.findByRole("alert")).textContent).toContain("“Left wrist.” Yours is not kept yet.");
  expect(area.value).toBe("Right knee.");
  fireEvent.click(screen.getByRole("button", { name: "Put both together" }));
  fireEvent.click(screen.getByRole("button", { name: "Keep mine in its place" }));
  await waitFor(() => expect(kept.note).toBe("Left wrist.\nRight knee."));
  await waitFor(() => expect(screen.queryByRole("alert")).toBeNull());
});
