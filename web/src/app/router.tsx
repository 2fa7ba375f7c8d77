import { createBrowserRouter, Navigate } from "react-router";
import { alsoSay } from "../i18n/start";
import { Broken } from "./Broken";
import { Gate } from "./Gate";
import { NotFound } from "./NotFound";
import { Shell } from "./Shell";

/** A page together with the texts that only it says. */
async function worded<Page>(page: Promise<Page>, texts: Promise<Record<string, object>>): Promise<Page> {
  alsoSay(await texts);
  return page;
}

export const router = createBrowserRouter([
  {
    element: <Gate />,
    errorElement: <Broken />,
    children: [
      {
        path: "/clients/:clientId/rounds/:roundId/plan/print",
        lazy: async () => ({ Component: (await import("../features/plan")).PrintPage }),
      },
      {
        path: "/clients/:clientId/rounds/:roundId/review/print",
        lazy: async () => ({
          Component: (await worded(import("../features/review"), import("../i18n/en-review")))
            .ReviewPrintPage,
        }),
      },
      {
        element: <Shell />,
        children: [
          // One that broke leaves the others, and the way to them, in place.
          {
            errorElement: <Broken />,
            children: [
              { index: true, element: <Navigate to="/today" replace /> },
              {
                path: "/today",
                lazy: async () => ({ Component: (await import("../features/today")).TodayPage }),
              },
              {
                path: "/tour",
                lazy: async () => ({ Component: (await import("../features/tour")).TourPage }),
              },
              {
                path: "/clients",
                lazy: async () => ({ Component: (await import("../features/clients")).ClientsPage }),
              },
              {
                path: "/clients/new",
                lazy: async () => ({ Component: (await import("../features/brief")).NewClientPage }),
              },
              {
                path: "/clients/:clientId",
                lazy: async () => ({ Component: (await import("../features/rounds")).ClientPage }),
              },
              {
                path: "/clients/:clientId/messages",
                lazy: async () => ({ Component: (await import("../features/notes")).MessagesPage }),
              },
              {
                path: "/clients/:clientId/rounds/:roundId",
                lazy: async () => ({ Component: (await import("../features/rounds")).RoundPage }),
                children: [
                  {
                    errorElement: <Broken />,
                    children: [
                      { index: true, element: <Navigate to="verdict" replace /> },
                      {
                        path: "brief",
                        lazy: async () => ({ Component: (await import("../features/brief")).BriefPage }),
                      },
                      {
                        path: "photos",
                        lazy: async () => ({ Component: (await import("../features/photos")).PhotosPage }),
                      },
                      {
                        path: "photos/again",
                        lazy: async () => ({ Component: (await import("../features/photos")).RepeatsPage }),
                      },
                      {
                        path: "tape",
                        lazy: async () => ({ Component: (await import("../features/tape")).TapePage }),
                      },
                      {
                        path: "tests",
                        lazy: async () => ({ Component: (await import("../features/tests")).TestsPage }),
                      },
                      {
                        path: "verdict",
                        lazy: async () => ({ Component: (await import("../features/verdict")).VerdictPage }),
                      },
                      {
                        path: "plan",
                        lazy: async () => ({ Component: (await import("../features/plan")).PlanPage }),
                      },
                      {
                        path: "log",
                        lazy: async () => ({ Component: (await import("../features/log")).LogPage }),
                      },
                      {
                        path: "review",
                        lazy: async () => ({
                          Component: (await worded(import("../features/review"), import("../i18n/en-review")))
                            .ReviewPage,
                        }),
                      },
                      {
                        path: "trends",
                        lazy: async () => ({
                          Component: (await worded(import("../features/review"), import("../i18n/en-review")))
                            .TrendsPage,
                        }),
                      },
                    ],
                  },
                ],
              },
              {
                path: "/library",
                lazy: async () => ({
                  Component: (await worded(import("../features/library"), import("../i18n/en-library")))
                    .LibraryPage,
                }),
              },
              {
                path: "/eye",
                lazy: async () => ({
                  Component: (await worded(import("../features/eye"), import("../i18n/en-eye"))).EyePage,
                }),
              },
              {
                path: "/eye/:sittingId",
                lazy: async () => ({
                  Component: (await worded(import("../features/eye"), import("../i18n/en-eye"))).SittingPage,
                }),
              },
              {
                path: "/practice",
                lazy: async () => ({
                  Component: (await worded(import("../features/practice"), import("../i18n/en-practice")))
                    .PracticePage,
                }),
              },
              {
                path: "/stand-in",
                lazy: async () => ({ Component: (await import("../features/standin")).StandInPage }),
              },
              { path: "*", element: <NotFound /> },
            ],
          },
        ],
      },
    ],
  },
]);
