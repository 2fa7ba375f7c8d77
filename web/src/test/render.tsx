// What every component test needs around it: words, a router, and an atlas that is already there.
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render } from "@testing-library/react";
import type { ReactElement, ReactNode } from "react";
import { MemoryRouter } from "react-router";
import "../i18n";
import * as eye from "../i18n/en-eye";
import * as library from "../i18n/en-library";
import * as practice from "../i18n/en-practice";
import * as review from "../i18n/en-review";
import { alsoSay } from "../i18n/start";
import type { Atlas } from "../shared/api/atlas";
import { $api } from "../shared/api/client";

for (const texts of [eye, library, practice, review]) alsoSay(texts);

const named = (names: Record<string, string>) => Object.entries(names).map(([id, name]) => ({ id, name }));

/** A small atlas: only what names things. */
export const atlas = {
  regions: named({ "biceps.long": "Biceps, long head", "calves.gastrocnemius": "Gastrocnemius" }),
  sites: named({ calf: "Calf", "arm-flexed": "Upper arm, flexed" }),
  looks: named({ taper: "Taper" }),
  equipment: [],
  poses: named({ F: "Front relaxed" }),
  pairings: [],
  takeovers: { momentum: "Momentum" },
  schemes: [
    { id: "straight", name: "Straight sets", how: "Every set alike." },
    { id: "drop", name: "Drop after the last set", how: "A lighter load to failure." },
  ],
  exercises: [
    {
      id: "incline-curl",
      name: "Incline dumbbell curl",
      set_up: "Lie back on the incline.",
      cues: ["Curl without moving the upper arm."],
      faults: [{ fault: "Swinging", takes_over: "momentum" }],
      cautions: ["Not with a sore biceps tendon."],
    },
  ],
} as unknown as Atlas;

export function Around({ children, at = "/" }: { children: ReactNode; at?: string }) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  client.setQueryData($api.queryOptions("get", "/api/v1/atlas", {}).queryKey, atlas);
  return (
    <QueryClientProvider client={client}>
      <MemoryRouter initialEntries={[at]}>{children}</MemoryRouter>
    </QueryClientProvider>
  );
}

/** Shows it as if it stood at an address. */
export const show = (element: ReactElement, at?: string) =>
  render(element, { wrapper: ({ children }) => <Around at={at}>{children}</Around> });
