import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient } from "../../../shared/api/client";
import { today } from "../../../shared/format";
import { show } from "../../../test/render";
import { NewRoundDialog } from "./NewRoundDialog";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

function dialog(answer: object) {
  const post = vi.spyOn(fetchClient, "POST").mockImplementation((async () => answer) as never);
  const onClose = vi.fn();
  show(<NewRoundDialog clientId="c" open holder="MT" onClose={onClose} />);
  return { post, onClose };
}

const open = () => fireEvent.click(screen.getByRole("button", { name: "Open the round" }));
const refused = (status: number, detail: string, errors?: object[]) => ({
  error: { status, title: "", detail, errors },
  response: new Response(null, { status }),
});

test("a round is opened today, by whoever held the tape last, unless something else is said", async () => {
  const { post, onClose } = dialog({ data: { id: "r2" }, response: new Response() });
  open();
  await waitFor(() => expect(onClose).toHaveBeenCalledTimes(1));
  expect(post.mock.calls[0]?.[1]).toEqual({
    params: { path: { client_id: "c" } },
    body: { date: today(), measured_by: "MT", weight_kg: undefined },
  });
});

test("nobody holds the tape: that is asked for before anything is sent", async () => {
  const { post } = dialog({});
  fireEvent.change(screen.getByLabelText("Who holds the tape"), { target: { value: "" } });
  open();
  await waitFor(() => expect(document.querySelector(".ant-form-item-has-error")).toBeTruthy());
  expect(post).not.toHaveBeenCalled();
});

test("what is wrong stands at its field, and the dialog stays", async () => {
  const errors = [{ pointer: "/weight_kg", says: "a weight of 824 kg is out of range" }];
  const { onClose } = dialog(refused(422, "1 problem", errors));
  fireEvent.change(screen.getByLabelText("Weight, kg"), { target: { value: "824" } });
  open();
  const says = await screen.findByText("a weight of 824 kg is out of range");
  expect(says.closest(".ant-form-item")?.textContent).toMatch(/^Weight/);
  expect(onClose).not.toHaveBeenCalled();
});

test("a second round on a day is said below the form", async () => {
  dialog(refused(409, "there is a round of 2026-03-02 already"));
  open();
  expect(await screen.findByText("there is a round of 2026-03-02 already")).toBeTruthy();
});
