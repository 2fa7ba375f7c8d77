// What a line of the list offers next, and how the list is narrowed by its address. Pure, so that it is tested without a page.
import type { Schemas } from "../../shared/api/client";

type Summary = Schemas["ClientSummary"];

export interface NextStep {
  label: "openRound" | "toTape" | "toVerdict" | "toPlan";
  to: string;
}

/** The one thing to do next for a client, and the exact place. */
export function nextStep(client: Summary): NextStep {
  const round = client.newest;
  if (!round) return { label: "openRound", to: `/clients/${client.id}` };
  const base = `/clients/${client.id}/rounds/${round.id}`;
  if (client.verdict?.missing.length) return { label: "toTape", to: `${base}/tape` };
  if (client.verdict?.bring_up.length) return { label: "toPlan", to: `${base}/plan` };
  return { label: "toVerdict", to: `${base}/verdict` };
}

/** Where a line leads: the newest round, or the client when there is none. */
export function lineTarget(client: Summary): string {
  return client.newest ? `/clients/${client.id}/rounds/${client.newest.id}/verdict` : `/clients/${client.id}`;
}

export const ORDERS = ["name", "next-round", "last-round"] as const;

/** How the list is narrowed and ordered: it stands in the address, so that a list can be kept and passed on. */
export interface Narrowing {
  find: string;
  tag: string;
  /** The site of a part of the body. */
  behind: string;
  due: boolean;
  order: (typeof ORDERS)[number];
  away: boolean;
  page: number;
}

export function narrowingOf(address: URLSearchParams): Narrowing {
  const text = (name: string) => address.get(name) ?? "";
  const page = Number(text("page"));
  return {
    find: text("find"),
    tag: text("tag"),
    behind: text("behind"),
    due: address.has("due"),
    order: ORDERS.find((order) => order === text("order")) ?? "name",
    away: address.has("away"),
    page: Number.isInteger(page) && page > 0 ? page : 1,
  };
}

/** The address of a list; what is as usual is left out. */
export function addressOf({ find, tag, behind, due, order, away, page }: Narrowing): Record<string, string> {
  const all = {
    find,
    tag,
    behind,
    due: due ? "1" : "",
    order: order === "name" ? "" : order,
    away: away ? "1" : "",
    page: page > 1 ? String(page) : "",
  };
  return Object.fromEntries(Object.entries(all).filter(([, value]) => value !== ""));
}

/** Whether anything but the order narrows the list. */
export const isNarrowed = ({ find, tag, behind, due }: Narrowing): boolean =>
  find.trim() !== "" || tag !== "" || behind !== "" || due;
