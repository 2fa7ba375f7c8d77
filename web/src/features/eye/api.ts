import { useQueryClient } from "@tanstack/react-query";
import { $api, type Schemas } from "../../shared/api/client";

const SITTING = "/api/v1/eye/sittings/{sitting_id}";
const of = (id: string) => ({ params: { path: { sitting_id: id } } });

/** What the own eye is worth. */
export const useEye = () => $api.useQuery("get", "/api/v1/eye");

export const useSitting = (id: string) => $api.useQuery("get", SITTING, of(id));

/** Begins a sitting, or goes on with the one left open. */
export const useBegin = () => $api.useMutation("post", "/api/v1/eye/sittings");

/** Answers the next picture. What is known of the eye, and of every verdict that rests on it, changes when one is over. */
export function useAnswer(id: string) {
  const queries = useQueryClient();
  const { queryKey } = $api.queryOptions("get", SITTING, of(id));
  const answering = $api.useMutation("post", "/api/v1/eye/sittings/{sitting_id}/answers", {
    onSuccess: (sitting) => {
      queries.setQueryData(queryKey, sitting);
      queries.invalidateQueries({ predicate: (query) => !sitting.next && query.queryKey[1] !== SITTING });
    },
    // Answered in another tab: what is next is read again.
    onError: () => queries.invalidateQueries({ queryKey }),
  });
  return {
    ...answering,
    answer: (place: number, value: number | null) => answering.mutate({ ...of(id), body: { place, value } }),
  };
}

export const pictureOf = (sitting: Schemas["EyeSittingView"], place: number) =>
  `/api/v1/eye/sittings/${sitting.id}/pictures/${place}`;
