import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient } from "../../../shared/api/client";
import { show } from "../../../test/render";
import { OwnerForm } from "./OwnerForm";
import { SignInForm } from "./SignInForm";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const server = (answer: object) =>
  vi.spyOn(fetchClient, "POST").mockImplementation((async () => answer) as never);
const refused = (status: number, detail: string, errors?: object[]) => ({
  error: { status, title: "", detail, errors },
  response: new Response(null, { status }),
});
const type = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });

test("login and password are sent as they were typed", async () => {
  const post = server({ data: {}, response: new Response() });
  show(<SignInForm />);
  type("Login", "mara");
  type("Password", " with spaces ");
  fireEvent.click(screen.getByRole("button", { name: "Sign in" }));
  await waitFor(() => expect(post).toHaveBeenCalledTimes(1));
  expect(post.mock.calls[0]?.[1]).toEqual({ body: { login: "mara", password: " with spaces " } });
});

test.each([
  ["a wrong password", refused(401, "Login and password do not match."), "Login and password do not match."],
  ["too many attempts", refused(429, "Too many attempts: try again in 6 s."), "try again in 6 s"],
  [
    "an answer that is none",
    { error: "gateway", response: new Response(null, { status: 502 }) },
    "Something went",
  ],
] as const)("%s is said", async (_, answer, says) => {
  server(answer);
  show(<SignInForm />);
  type("Login", "mara");
  type("Password", "not this one");
  fireEvent.click(screen.getByRole("button", { name: "Sign in" }));
  await waitFor(() => expect(screen.getByRole("alert").textContent).toContain(says));
});

test("an empty form sends nothing", async () => {
  const post = server({ data: {}, response: new Response() });
  show(<SignInForm />);
  fireEvent.click(screen.getByRole("button", { name: "Sign in" }));
  await waitFor(() => expect(document.querySelectorAll(".ant-form-item-has-error")).toHaveLength(2));
  expect(post).not.toHaveBeenCalled();
});

function owner(password: string) {
  show(<OwnerForm asksForCode={false} />);
  type("Your name", "Mara");
  type("Login", "mara");
  type("Password", password);
  fireEvent.click(screen.getByRole("button", { name: "Make the account" }));
}

test("what is wrong with the owner's account stands at its field", async () => {
  const errors = [{ pointer: "/password", says: "a password needs at least 10 characters" }];
  server(refused(422, "1 problem", errors));
  owner("short");
  const says = await screen.findByText("a password needs at least 10 characters");
  expect(says.closest(".ant-form-item")?.textContent).toMatch(/^Password/);
  expect(screen.queryByText("1 problem")).toBeNull();
});

test("that somebody else was first is said below the form", async () => {
  server(refused(409, "the practice has an owner already"));
  owner("a long enough one");
  expect((await screen.findByRole("alert")).textContent).toBe("the practice has an owner already");
});

test("the code of the first start is asked for where the program printed one", async () => {
  const post = server({ data: {}, response: new Response() });
  show(<OwnerForm asksForCode />);
  type("Your name", "Mara");
  type("Login", "mara");
  type("Password", "a long enough one");
  type("Code", "12345678");
  fireEvent.click(screen.getByRole("button", { name: "Make the account" }));
  await waitFor(() => expect(post.mock.calls[0]?.[1]).toMatchObject({ body: { code: "12345678" } }));
});

test("a code is asked for once the server says so, and sent with the rest", async () => {
  const says = "This account asks for a code too: the six digits on your phone, or a recovery code.";
  const post = server(refused(401, says, [{ pointer: "/code", says }]));
  show(<SignInForm />);
  expect(screen.queryByLabelText("Code from your phone")).toBeNull();
  type("Login", "mara");
  type("Password", "a long enough one");
  fireEvent.click(screen.getByRole("button", { name: "Sign in" }));
  await screen.findByLabelText("Code from your phone");
  type("Code from your phone", "123456");
  fireEvent.click(screen.getByRole("button", { name: "Sign in" }));
  await waitFor(() => expect(post).toHaveBeenCalledTimes(2));
  expect(post.mock.calls[1]?.[1]).toEqual({
    body: { login: "mara", password: "a long enough one", code: "123456" },
  });
});
