import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";
import { fetchClient, type Schemas } from "../../../shared/api/client";
import { show } from "../../../test/render";
import type { Site } from "../model";
import { CsvDialog } from "./CsvDialog";
import { OrderDialog } from "./OrderDialog";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const answer = (data: unknown) => (async () => ({ data, response: new Response() })) as never;
const refusal = (status: number, detail: string) =>
  (async () => ({ error: { status, title: "", detail }, response: new Response(null, { status }) })) as never;

const row = (line: number, cells: string[], says: string[] = []) => ({ line, cells, says });

const good = {
  headings: ["site", "side", "first"],
  columns: ["site", "side", "reading"],
  rows: [row(2, ["calf", "left", "37.4"]), row(3, ["waist", "", "81"])],
  wrong_rows: 0,
  says: [],
  tape: [
    { site: "calf", side: "left", readings_cm: [37.4] },
    { site: "waist", readings_cm: [81] },
  ],
  skinfolds: [],
} as unknown as Schemas["CsvPreview"];

const wrong = {
  ...good,
  rows: [row(2, ["calf", "left", "37.4"]), row(3, ["calf", "", "37,4"], ["calf has two sides", "two units"])],
  wrong_rows: 1,
  tape: [],
} as unknown as Schemas["CsvPreview"];

function csv(server: never) {
  const post = vi.spyOn(fetchClient, "POST").mockImplementation(server);
  const onTake = vi.fn();
  show(<CsvDialog open onClose={vi.fn()} onTake={onTake} />);
  return { post, onTake };
}

const paste = (text: string) =>
  fireEvent.change(screen.getByLabelText("Or paste it here"), { target: { value: text } });
const sent = (post: ReturnType<typeof csv>["post"]) =>
  (post.mock.calls.at(-1)?.[1] as { body: Schemas["ReadCsv"] } | undefined)?.body;

test("a file that is in order is taken in as a whole", async () => {
  const { post, onTake } = csv(answer(good));
  paste("site,side,first\ncalf,left,37.4\nwaist,,81\n");
  expect((await screen.findByRole("status")).textContent).toBe("2 lines understood.");
  expect(sent(post)).toMatchObject({ unit: "usual", text: expect.stringContaining("waist,,81") });
  fireEvent.click(screen.getByRole("button", { name: "Take 2 places in" }));
  expect(onTake).toHaveBeenCalledTimes(1);
  expect(Object.values(onTake.mock.calls[0]?.[0] ?? {}).sort()).toEqual(["37.4", "81.0"]);
});

test("with a wrong line nothing is taken in, and the line says everything that is wrong with it", async () => {
  const { onTake } = csv(answer(wrong));
  paste("site,side,first\ncalf,left,37.4\ncalf,,37,4\n");
  expect((await screen.findByRole("alert")).textContent).toMatch(/^1 of 2 lines cannot be taken in/);
  const rows = within(screen.getByRole("region", { name: "What the file holds" })).getAllByRole("row");
  expect(rows.at(-1)?.textContent).toBe("3calf37,4calf has two sides; two units");
  const take = screen.getByRole<HTMLButtonElement>("button", { name: "Take 0 places in" });
  expect(take.disabled).toBe(true);
  fireEvent.click(take);
  expect(onTake).not.toHaveBeenCalled();
});

test("of a long file the wrong lines are shown first, and how many there are", async () => {
  const rows = Array.from({ length: 200 }, (_, i) => row(i + 2, ["calf"], i === 150 ? ["no reading"] : []));
  csv(answer({ ...wrong, rows, columns: ["site"], headings: ["site"] }));
  paste("site\n");
  const shown = within(await screen.findByRole("region", { name: "What the file holds" })).getAllByRole(
    "row",
  );
  expect(shown[1]?.textContent).toBe("152calfno reading");
  expect(shown).toHaveLength(61);
  expect(screen.getByText("60 of 200 lines are shown, those with something wrong first.")).toBeTruthy();
});

test("a file that is too large is said, and none of it is shown", async () => {
  csv(refusal(400, "what was sent is larger than 4096 kB: nothing of it was taken in"));
  paste("site,side\n");
  expect((await screen.findByRole("alert")).textContent).toContain("larger than 4096 kB");
  expect(screen.queryByRole("table")).toBeNull();
});

test("nothing typed asks nothing", () => {
  const { post } = csv(answer(good));
  paste("  \n ");
  expect(post).not.toHaveBeenCalled();
});

const sites = [
  { id: "waist", name: "Waist" },
  { id: "hip", name: "Hips" },
  { id: "calf", name: "Calf" },
] as unknown as Site[];

function order(server: never, own?: Schemas["TapeOrder"]) {
  const put = vi.spyOn(fetchClient, "PUT").mockImplementation(server);
  const onClose = vi.fn();
  show(<OrderDialog sites={sites} order={own} open onClose={onClose} />);
  return { put, onClose };
}

const listed = () => screen.getAllByRole("listitem").map((line) => line.textContent?.replace(/[↑↓]/g, ""));
const press = (name: string) => fireEvent.click(screen.getByRole("button", { name }));

test("sites move up and down, and what is unticked is not asked for", async () => {
  const { put, onClose } = order(answer({}));
  const up = screen.getAllByRole<HTMLButtonElement>("button", { name: / earlier/i });
  expect(up.map(({ disabled }) => disabled)).toEqual([true, false, false]);
  fireEvent.click(up[2] as HTMLElement);
  expect(listed()).toEqual(["Waist", "Calf", "Hips"]);
  fireEvent.click(screen.getByRole("checkbox", { name: "Waist" }));
  press("Keep this order");
  await waitFor(() => expect(onClose).toHaveBeenCalledTimes(1));
  expect(put.mock.calls[0]?.[1]).toMatchObject({
    body: { sites: ["waist", "calf", "hip"], left_out: ["waist"] },
  });
});

test("an own order is shown as it was kept, and goes back to the shipped one", () => {
  order(answer({}), { sites: ["calf", "hip", "waist"], left_out: ["hip"] } as Schemas["TapeOrder"]);
  expect(listed()).toEqual(["Calf", "Hips", "Waist"]);
  expect(screen.getByRole<HTMLInputElement>("checkbox", { name: "Hips" }).checked).toBe(false);
  press("As shipped");
  expect(listed()).toEqual(["Waist", "Hips", "Calf"]);
  expect(screen.getByRole<HTMLInputElement>("checkbox", { name: "Hips" }).checked).toBe(true);
});

test("an order that was not kept says why, and stays open", async () => {
  const { onClose } = order(refusal(503, "The studio's computer is busy."));
  press("Keep this order");
  expect(await screen.findByText("The studio's computer is busy.")).toBeTruthy();
  expect(onClose).not.toHaveBeenCalled();
});
