import { cleanup, render, screen } from "@testing-library/react";
import { createMemoryRouter, Outlet, RouterProvider } from "react-router";
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import "../i18n";
import { Broken } from "./Broken";

beforeEach(() => {
  // React tells of what it caught.
  vi.spyOn(console, "error").mockImplementation(() => {});
});
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const Frame = () => (
  <>
    <nav>Places</nav>
    <Outlet />
  </>
);

const Breaks = ({ error }: { error: Error }) => {
  throw error;
};

function opened(error: Error) {
  const pages = [
    { errorElement: <Broken />, children: [{ index: true, element: <Breaks error={error} /> }] },
  ];
  render(<RouterProvider router={createMemoryRouter([{ element: <Frame />, children: pages }])} />);
}

test("a page that breaks leaves the places standing and says the way on", async () => {
  opened(new Error("no such region"));
  const alert = await screen.findByRole("alert");
  expect(alert.textContent).toMatch(/kept in this browser.*no such region/s);
  expect(screen.getByText("Places")).toBeTruthy();
  expect(screen.getByRole("button", { name: "Load it again" })).toBeTruthy();
  expect(screen.getByRole("link", { name: "Go to Today" }).getAttribute("href")).toBe("/today");
});

test("a part that a newer version replaced is told as that", async () => {
  opened(new TypeError("Failed to fetch dynamically imported module: /assets/PlanPage-1.js"));
  expect((await screen.findByRole("alert")).textContent).toContain("older version");
  expect(screen.getByRole("button", { name: "Take it" })).toBeTruthy();
});
