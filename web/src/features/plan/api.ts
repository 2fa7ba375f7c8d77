import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useEffectEvent, useRef, useState } from "react";
import { $api, fetchClient, type Schemas } from "../../shared/api/client";
import { type Document, useDocument } from "../../shared/save";
import { differing, type Week } from "./model";

type PlanView = Schemas["PlanView"];
type ProofView = Schemas["ProofView"];

const round = (roundId: string) => ({ params: { path: { round_id: roundId } } });
const PLAN = "/api/v1/rounds/{round_id}/plan";

export function usePlan(roundId: string) {
  return $api.useQuery("get", PLAN, round(roundId));
}

/** In which units whoever the plan is for reads; paper is theirs. */
export function useClientMeasures(clientId: string) {
  return $api.useQuery(
    "get",
    "/api/v1/clients/{client_id}",
    { params: { path: { client_id: clientId } } },
    { select: ({ brief }) => brief.measures ?? {} },
  );
}

/** A plan the client was given. */
export function useIssued(planId: string | undefined) {
  return $api.useQuery(
    "get",
    "/api/v1/plans/{plan_id}",
    { params: { path: { plan_id: planId ?? "" } } },
    { enabled: planId !== undefined, staleTime: Number.POSITIVE_INFINITY },
  );
}

const EDIT = "plan-edit";
/** Time from an edit to the week drawn anew with its ledger and rules, for whoever measures. */
const REDRAWN = "plan-redrawn";

/** The week under work: shown at once, checked and kept at once, taken back by one step. */
export function useWeek(
  roundId: string,
  plan: PlanView,
  refetch: () => Promise<PlanView | undefined>,
): Document<PlanView, Week> {
  const queries = useQueryClient();
  const saving = $api.useMutation("put", PLAN, {
    onSuccess: (view) => queries.setQueryData($api.queryOptions("get", PLAN, round(roundId)).queryKey, view),
  });
  const document = useDocument<PlanView, Week>(plan, {
    key: `plan-${roundId}`,
    revisionOf: ({ revision }) => revision,
    valueOf: ({ week }) => week,
    differing,
    refetch,
    pause_ms: 0,
    send: (known, week) => {
      performance.mark(EDIT);
      return saving.mutateAsync({ ...round(roundId), body: { revision: known.revision, week } });
    },
  });
  useEffect(() => {
    const drawn = () => {
      if (plan && performance.getEntriesByName(EDIT).length === 0) return;
      performance.measure(REDRAWN, EDIT);
      performance.clearMarks(EDIT);
    };
    // What is posted in the frame's callback comes after its picture.
    const frame = requestAnimationFrame(() => {
      const { port1, port2 } = new MessageChannel();
      port1.onmessage = drawn;
      port2.postMessage(undefined);
    });
    return () => cancelAnimationFrame(frame);
  }, [plan]);
  return document;
}

export function useSolve(roundId: string) {
  const solving = $api.useMutation("post", "/api/v1/rounds/{round_id}/plan/solve");
  return {
    pending: solving.isPending,
    error: solving.error,
    solve: (body: Schemas["SolvePlan"]) => solving.mutateAsync({ ...round(roundId), body }),
  };
}

/** Alternatives for a card; asked anew when the week changes. */
export function useSwaps(roundId: string, week: Week, spot: { session: number; place: number }) {
  return $api.useQuery(
    "post",
    "/api/v1/rounds/{round_id}/plan/swaps",
    { ...round(roundId), body: { week, ...spot } },
    { placeholderData: (previous: Schemas["SwapsView"] | undefined) => previous },
  );
}

export function useIssue(roundId: string) {
  const queries = useQueryClient();
  return $api.useMutation("post", "/api/v1/rounds/{round_id}/plan/issue", {
    onSuccess: () => queries.invalidateQueries($api.queryOptions("get", PLAN, round(roundId))),
  });
}

/** The planner's own week for the brief's days and minutes. Nothing is kept by asking for it. */
export async function ownWeek(roundId: string): Promise<Week | undefined> {
  return (await fetchClient.GET("/api/v1/rounds/{round_id}/plan/own", round(roundId))).data;
}

/** Which exercises may be added, and why others may not; asked for when a coach looks for one. */
export function useAddable(roundId: string, wanted: boolean) {
  return $api.useQuery("get", "/api/v1/rounds/{round_id}/plan/exercises", round(roundId), {
    enabled: wanted,
  });
}

const WEEKS = "/api/v1/weeks";

/** Weeks that can be taken for a client. */
export function useWeeks(wanted: boolean) {
  return $api.useQuery("get", WEEKS, {}, { enabled: wanted });
}

/** Fits a week of somebody else to the round's client. Nothing is kept by asking for it. */
export function useCopyWeek(roundId: string) {
  const copying = $api.useMutation("post", "/api/v1/rounds/{round_id}/plan/copy");
  return {
    error: copying.error,
    pending: copying.isPending,
    copy: (from: Schemas["WeekSource"]) =>
      copying.mutateAsync({ ...round(roundId), body: { from } }).catch(() => undefined),
  };
}

function useWeeksChanged() {
  const queries = useQueryClient();
  return () => queries.invalidateQueries({ queryKey: $api.queryOptions("get", WEEKS, {}).queryKey });
}

/** Keeps a week under a name; says whether it was. */
export function useKeepWeek() {
  const keeping = $api.useMutation("post", WEEKS, { onSuccess: useWeeksChanged() });
  return {
    error: keeping.error,
    pending: keeping.isPending,
    reset: keeping.reset,
    keep: (body: Schemas["KeepWeek"]) =>
      keeping
        .mutateAsync({ body })
        .then(() => true)
        .catch(() => false),
  };
}

export function useForgetWeek() {
  const forgetting = $api.useMutation("delete", "/api/v1/weeks/{week_id}", { onSuccess: useWeeksChanged() });
  return {
    error: forgetting.error,
    forget: (id: string) => forgetting.mutate({ params: { path: { week_id: id } } }),
  };
}

export interface Proving {
  proof?: ProofView;
  running: boolean;
  start: (seconds: number) => void;
  stop: () => void;
}

/** A proof in the background: events come while it runs, and hanging up stops it. */
export function useProof(roundId: string, onDone: () => void): Proving {
  const [proof, setProof] = useState<ProofView>();
  const [running, setRunning] = useState(false);
  const source = useRef<EventSource>(undefined);
  const end = useRef(() => {
    source.current?.close();
    source.current = undefined;
    setRunning(false);
  }).current;
  useEffect(() => () => source.current?.close(), []);
  const start = (seconds: number) => {
    source.current?.close();
    setProof(undefined);
    setRunning(true);
    const events = new EventSource(`/api/v1/rounds/${roundId}/plan/proof?seconds=${seconds}`);
    source.current = events;
    events.onmessage = (event) => setProof(JSON.parse(event.data) as ProofView);
    // The server closes the stream when it is done; a browser calls that an error and would ask again.
    events.onerror = () => {
      end();
      onDone();
    };
  };
  return { proof, running, start, stop: end };
}

/** A first proof goes on by itself for so long, once nothing was changed for a while: it takes every core there is. */
const FIRST_PROOF_S = 8;
const RESTED_MS = 1_500;

/** Begins a proof once for each week that nothing is known about; one that was stopped is not begun again by itself. */
export function useFirstProof(proving: Proving, settled: boolean, unproven: boolean): void {
  const begin = useEffectEvent(() => {
    if (!proving.running) proving.start(FIRST_PROOF_S);
  });
  const end = useEffectEvent(() => proving.stop());
  useEffect(() => {
    // What is changed needs the machine more than a proof of what it was.
    if (!settled) end();
    if (!settled || !unproven) return;
    const rested = setTimeout(() => begin(), RESTED_MS);
    return () => clearTimeout(rested);
  }, [settled, unproven]);
}

/** What was reported of an exercise's form the last time a client did it; nothing while it is not known. */
export function useReported(clientId: string): (exercise: string) => string[] {
  const { data } = $api.useQuery(
    "get",
    "/api/v1/clients/{client_id}/reported",
    { params: { path: { client_id: clientId } } },
    { enabled: clientId !== "" },
  );
  return (exercise) => data?.reported[exercise] ?? [];
}
