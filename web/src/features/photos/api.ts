import { useReadAgain, useRoundChanged } from "../../shared/api/changes";
import { $api, type Schemas } from "../../shared/api/client";
import { useSending, type Way } from "../../shared/send";
import { type Take, takenAs } from "../capture";
import type { Photo } from "./model";

/** While a picture waits to be looked at, the table is read again. */
const WAITING_MS = 700;

const roundInit = (id: string) => ({ params: { path: { round_id: id } } });

export function useLightTable(roundId: string) {
  return $api.useQuery("get", "/api/v1/rounds/{round_id}/photos", roundInit(roundId), {
    refetchInterval: ({ state }) => {
      const photos = (state.data as Schemas["LightTable"] | undefined)?.rounds.flatMap(
        ({ photos }) => photos,
      );
      return photos?.some((photo) => photo.state === "waiting") ? WAITING_MS : false;
    },
  });
}

export function useOver(from: Photo | undefined, onto: Photo | undefined) {
  const path = { photo_id: from?.id ?? "", onto_id: onto?.id ?? "" };
  return $api.useQuery(
    "get",
    "/api/v1/photos/{photo_id}/over/{onto_id}",
    { params: { path } },
    { enabled: !!from?.measured?.person && !!onto?.measured?.person, retry: false },
  );
}

export function useOutline(photo: Photo | undefined, wanted: boolean) {
  return $api.useQuery(
    "get",
    "/api/v1/photos/{photo_id}/outline",
    { params: { path: { photo_id: photo?.id ?? "" } } },
    { enabled: wanted && !!photo?.measured },
  );
}

/** After pictures or ratings changed, everything that rests on them is read again. */
export function usePhotosChanged() {
  const readAgain = useReadAgain();
  const roundChanged = useRoundChanged();
  return () => {
    void readAgain("/api/v1/photos/{photo_id}/outline", "/api/v1/photos/{photo_id}/over/{onto_id}");
    return roundChanged();
  };
}

/** Pictures on their way into a round: files, or taken here. */
export function usePhotoSending(roundId: string) {
  const way = (taken: Take | undefined): Way => ({
    method: "POST",
    path: `/api/v1/rounds/${roundId}/photos${taken ? `?${takenAs(taken)}` : ""}`,
  });
  return useSending<Take | undefined>({ way, onDone: usePhotosChanged() });
}

export function useSavePhoto() {
  const onSettled = usePhotosChanged();
  return $api.useMutation("put", "/api/v1/photos/{photo_id}", { onSettled });
}

export function useDeletePhoto() {
  const onSuccess = usePhotosChanged();
  return $api.useMutation("delete", "/api/v1/photos/{photo_id}", { onSuccess });
}

/** Lets a picture count for its pose, instead of another one of its round. */
export function useLetCount() {
  const onSuccess = usePhotosChanged();
  return $api.useMutation("put", "/api/v1/photos/{photo_id}/counts", { onSuccess });
}

/** Asks the client for a pose once more. */
export function useAskAgain() {
  const onSuccess = usePhotosChanged();
  return $api.useMutation("post", "/api/v1/rounds/{round_id}/asks", { onSuccess });
}

export function useAskNoMore() {
  const onSuccess = usePhotosChanged();
  return $api.useMutation("delete", "/api/v1/rounds/{round_id}/asks/{pose}", { onSuccess });
}

export function useBooth() {
  const onSuccess = usePhotosChanged();
  return $api.useMutation("post", "/api/v1/rounds/{round_id}/booth", { onSuccess });
}

export function useSaveRating() {
  const onSettled = usePhotosChanged();
  return $api.useMutation("put", "/api/v1/rounds/{round_id}/ratings", { onSettled });
}

export function useDeleteRating() {
  const onSettled = usePhotosChanged();
  return $api.useMutation("delete", "/api/v1/rounds/{round_id}/ratings", { onSettled });
}

export function useRepeats(clientId: string) {
  const init = { params: { path: { client_id: clientId } } };
  return $api.useQuery("get", "/api/v1/clients/{client_id}/repeats", init, {
    staleTime: Number.POSITIVE_INFINITY,
  });
}

export function useSaveRepeat() {
  const onSettled = usePhotosChanged();
  return $api.useMutation("post", "/api/v1/repeats", { onSettled });
}

export const viewOf = (photo: { id: string }) => `/api/v1/photos/${photo.id}/view`;
export const thumbOf = (photo: { id: string }) => `/api/v1/photos/${photo.id}/thumb`;

/** Everything a save sends besides what changes. */
export function saved(photo: Photo): Schemas["SavePhoto"] {
  return {
    revision: photo.revision,
    pose: photo.pose_guessed ? undefined : photo.pose,
    mirrored: photo.mirrored,
    distance_m: photo.distance_m,
    moved: photo.moved,
  };
}
