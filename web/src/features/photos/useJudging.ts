import { App } from "antd";
import { useRef } from "react";
import { useTranslation } from "react-i18next";
import type { Kind } from "../../shared/judging";
import { useKeys } from "../../shared/ui/keys";
import { useDeleteRating, useSaveRating } from "./api";
import { kindsFor, type LightTable, nextOpen, type Photo, type Question, ratingAt } from "./model";

interface Judged {
  table: LightTable;
  roundId: string;
  photo: Photo;
  pose: string;
  region?: string;
  question?: Question;
  onLook: (next: { region?: string; pose?: string }) => void;
  onError: (error: unknown) => void;
}

/** The walk along the regions that the pictures show, with its keys: each is asked what its pose can tell, then comes the next. */
export function useJudging({ table, roundId, photo, pose, region, question, onLook, onError }: Judged) {
  const { t } = useTranslation();
  const { message } = App.useApp();
  const saveRating = useSaveRating();
  const takeBack = useDeleteRating();
  /** The region just left was asked for its standing alone. */
  const passed = useRef(false);
  const { questions } = table;
  const sidesKnown = typeof photo.mirrored === "boolean";

  const judged = (id: string) =>
    questions
      .find((one) => one.region === id)
      ?.poses.some((p) =>
        ratingAt(table.ratings, { round_id: roundId, region: id, pose: p, kind: "standing" }),
      ) ?? false;
  const pick = (next: string, inThatPose?: string) => {
    const shown = questions.find((one) => one.region === next)?.poses ?? [];
    onLook({ region: next, pose: inThatPose ?? (shown.includes(pose as never) ? pose : shown[0]) });
  };
  const rate = (kind: Kind, value: number | null) => {
    if (!region || !question) return;
    const before = ratingAt(table.ratings, { round_id: roundId, region, pose, kind });
    const place = { region, pose, kind };
    if (before && (before.value ?? null) === value) {
      takeBack.mutate({ params: { path: { round_id: roundId }, query: place } }, { onError });
      return;
    }
    saveRating.mutate({ params: { path: { round_id: roundId } }, body: { ...place, value } }, { onError });
    // The walk goes on when everything that is asked here has an answer.
    const open = kindsFor(question, pose, sidesKnown).filter(
      (one) => one !== kind && !ratingAt(table.ratings, { round_id: roundId, region, pose, kind: one }),
    );
    if (open.length > 0 && value !== null) return;
    const next = nextOpen(questions, region, (id) => id === region || judged(id));
    passed.current = kind === "standing" && !kindsFor(question, pose, sidesKnown).includes("left-right");
    if (next) pick(next);
  };
  const step = (by: number) => {
    const at = questions.findIndex((one) => one.region === region);
    const next = questions[Math.min(Math.max(at + by, 0), questions.length - 1)];
    if (next) pick(next.region);
  };
  const canRate = !!question?.poses.includes(pose as never);
  const sides = canRate && question ? kindsFor(question, pose, sidesKnown).includes("left-right") : false;
  // The second answer to a region that is asked only one: it is not the next one's.
  const side = (value: number) => {
    if (passed.current) message.info(t("photos.noSides"));
    else if (sides) rate("left-right", value);
    passed.current = false;
  };
  useKeys({
    standing: (stop) => canRate && rate("standing", stop - 2),
    sides: (stop) => side(2 - stop),
    cannotTell: () => canRate && rate("standing", null),
    next: () => step(1),
    previous: () => step(-1),
  });
  return { pick, rate, canRate };
}
