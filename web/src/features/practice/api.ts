import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { $api, fetchClient, type Schemas } from "../../shared/api/client";

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

/** Takes in a client from an archive: what was taken, what went wrong, and the act itself. */
export function useImport() {
  const queries = useQueryClient();
  const [taken, setTaken] = useState<Schemas["Imported"]>();
  const [failure, setFailure] = useState<unknown>();
  const take = async (file: Blob) => {
    const { data, error } = await fetchClient.POST("/api/v1/clients/archive", {
      body: file as never,
      bodySerializer: (body: unknown) => body as Blob,
    });
    setTaken(data);
    setFailure(error);
    await queries.invalidateQueries();
  };
  return [taken, failure, take] as const;
}
