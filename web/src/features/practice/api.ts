import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { $api, type Schemas } from "../../shared/api/client";
import { useSending } from "../../shared/send";

export const usePractice = () => $api.useQuery("get", "/api/v1/practice");
export const usePeople = () => $api.useQuery("get", "/api/v1/practice/people");
export const useMeasurers = () => $api.useQuery("get", "/api/v1/practice/measurers");

export const useAccuracy = () => $api.useQuery("get", "/api/v1/practice/accuracy");

/** Sends the practice's settings; every verdict and the atlas say something else from now on. */
export function useSendPractice() {
  const queries = useQueryClient();
  const saving = $api.useMutation("put", "/api/v1/practice", {
    onSuccess: (saved) => {
      queries.setQueryData($api.queryOptions("get", "/api/v1/practice").queryKey, saved);
      queries.invalidateQueries({ predicate: ({ queryKey }) => queryKey[1] !== "/api/v1/practice" });
    },
  });
  return (revision: number, settings: Schemas["PracticeEntry"]) =>
    saving.mutateAsync({ body: { revision, settings } });
}

/** Who did what, newest first; `skip` leaves out newer ones. */
export function useDeeds(skip: number) {
  return $api.useQuery("get", "/api/v1/practice/deeds", { params: { query: { skip } } });
}

function usePeopleChanged() {
  const queries = useQueryClient();
  const { queryKey } = $api.queryOptions("get", "/api/v1/practice/people");
  return () => queries.invalidateQueries({ queryKey });
}

export function useAddPerson() {
  return $api.useMutation("post", "/api/v1/practice/people", { onSuccess: usePeopleChanged() });
}

export function useSavePerson() {
  return $api.useMutation("put", "/api/v1/practice/people/{account_id}", { onSuccess: usePeopleChanged() });
}

export function useRemovePerson() {
  return $api.useMutation("delete", "/api/v1/practice/people/{account_id}", {
    onSuccess: usePeopleChanged(),
  });
}

export function useOfferFactor() {
  return $api.useMutation("post", "/api/v1/account/second-factor");
}

/** The list of people says so only once the codes were read: the dialog would go with them. */
export function useConfirmFactor() {
  return $api.useMutation("put", "/api/v1/account/second-factor");
}

export function useRemoveFactor() {
  return $api.useMutation("delete", "/api/v1/practice/people/{account_id}/second-factor", {
    onSuccess: usePeopleChanged(),
  });
}

/** Names of the tables that can be had. */
export function useTables(enabled: boolean) {
  return $api.useQuery("get", "/api/v1/practice/tables", {}, { enabled });
}

/** A client on the way in from an archive, and what was taken in last. */
export function useTakingIn() {
  const queries = useQueryClient();
  const [taken, setTaken] = useState<Schemas["Imported"]>();
  const sending = useSending<undefined>({
    way: () => ({ method: "POST", path: "/api/v1/clients/archive" }),
    onDone: (answer) => {
      setTaken(answer as Schemas["Imported"]);
      return queries.invalidateQueries();
    },
  });
  /** What went wrong with another file before is of no more use. */
  const take = (file: File) => {
    sending.clear();
    setTaken(undefined);
    sending.add([file], undefined);
  };
  return { taken, sending, take };
}
