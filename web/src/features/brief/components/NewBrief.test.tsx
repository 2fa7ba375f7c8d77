import { cleanup, fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import type { Atlas } from "../../../shared/api/atlas";
import { fetchClient } from "../../../shared/api/client";
import { show, atlas as small } from "../../../test/render";
import { NewBrief } from "./NewBrief";

const atlas = {
  ...small,
  looks: [{ id: "balanced", name: "Balanced", reason: "", weights: {} }],
  kits: [],
  equipment: [],
  screens: [],
  schools: [],
  readiness: [],
} as unknown as Atlas;

beforeEach(() => localStorage.clear());
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const opened = () => show(<NewBrief atlas={atlas} onStartOver={() => {}} />);
const named = () => screen.getByLabelText<HTMLInputElement>("Name");

test("what was typed is there when the page is opened again, until it is started over", async () => {
  opened();
  fireEvent.change(named(), { target: { value: "Ada Elmwood" } });
  await waitFor(() => expect(localStorage.length).toBeGreaterThan(0));
  cleanup();
  opened();
  expect(named().value).toBe("Ada Elmwood");
  fireEvent.click(screen.getByRole("button", { name: /Start over/ }));
  cleanup();
  opened();
  expect(named().value).toBe("");
});

test("what only the client can say is asked, not guessed", async () => {
  const post = vi.spyOn(fetchClient, "POST");
  opened();
  fireEvent.change(named(), { target: { value: "Ada Elmwood" } });
  expect(screen.getByLabelText<HTMLInputElement>("Stature, cm").value).toBe("");
  for (const sex of ["Female", "Male"])
    expect(screen.getByRole<HTMLInputElement>("radio", { name: sex }).checked).toBe(false);
  fireEvent.click(screen.getByRole("button", { name: "Add the client" }));
  await waitFor(() =>
    expect(document.querySelectorAll(".ant-form-item-explain-error").length).toBeGreaterThan(3),
  );
  expect(post).not.toHaveBeenCalled();
});
