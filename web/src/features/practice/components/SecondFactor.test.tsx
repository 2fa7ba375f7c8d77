import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { fetchClient, type Schemas } from "../../../shared/api/client";
import { show } from "../../../test/render";
import { SecondFactor } from "./SecondFactor";

beforeEach(() => {
  HTMLDialogElement.prototype.showModal ??= () => {};
  HTMLDialogElement.prototype.close ??= () => {};
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const person = (change: object = {}) =>
  ({
    id: "m",
    name: "Mara",
    login: "mara",
    role: "owner",
    you: true,
    second_factor: false,
    ...change,
  }) as Schemas["PersonView"];
const answers = (data: unknown) => (async () => ({ data, response: new Response() })) as never;
const button = (name: string) => screen.getByText(name).closest("button") as HTMLButtonElement;
const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

test("it is on once a code of the phone and the password were given, and the recovery codes are told", async () => {
  const offer = { secret: "ABCDEFGH", address: "otpauth://totp/Orthomer:mara?secret=ABCDEFGH" };
  vi.spyOn(fetchClient, "POST").mockImplementation(answers(offer));
  const put = vi
    .spyOn(fetchClient, "PUT")
    .mockImplementation(answers({ codes: ["aaaa-bbbb-cccc", "dddd-eeee-ffff"] }));
  show(<SecondFactor person={person()} />);
  fireEvent.click(button("Second factor…"));
  fireEvent.click(button("Set it up"));
  expect(await screen.findByText("ABCD EFGH")).toBeTruthy();
  expect(button("Turn it on").disabled).toBe(true);
  type("The six digits it shows now", "123456");
  type("Your password", "a long enough one");
  fireEvent.click(button("Turn it on"));
  expect(await screen.findByText(/aaaa-bbbb-cccc/)).toBeTruthy();
  const body = { secret: "ABCDEFGH", code: "123456", password: "a long enough one" };
  expect(put.mock.calls[0]?.[1]).toMatchObject({ body });
});

test("it is taken away by the password of whoever does it", async () => {
  const says = "this is not the password you have";
  const refuse = async () => ({
    error: { status: 422, title: "", detail: says, errors: [{ pointer: "/password", says }] },
    response: new Response(null, { status: 422 }),
  });
  const remove = vi.spyOn(fetchClient, "DELETE").mockImplementation(refuse as never);
  show(<SecondFactor person={person({ you: false, second_factor: true, name: "Jo", id: "j" })} />);
  fireEvent.click(button("Second factor on"));
  expect(screen.getByText(/Jo signs in with a code from their phone/)).toBeTruthy();
  type("Your password", "a guess");
  fireEvent.click(button("Take it away"));
  expect((await screen.findByRole("alert", { hidden: true })).textContent).toBe(says);
  await waitFor(() =>
    expect(remove.mock.calls[0]?.[1]).toMatchObject({ params: { path: { account_id: "j" } } }),
  );
});
