import { Button, Input, Select } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { useNames } from "../../../shared/api/atlas";
import { moment, useQuantities } from "../../../shared/format";
import { Dialog, Note, Wrong } from "../../../shared/ui";
import { useAskAgain, useAskNoMore } from "../api";
import type { LightTable, PhotoPose } from "../model";
import styles from "./Comparable.module.css";

interface Props {
  roundId: string;
  table: LightTable;
  poses: { id: string; name: string }[];
  /** The pose that is being asked for. */
  asking: PhotoPose | undefined;
  onAsk: (pose: PhotoPose | undefined) => void;
  /** The pose on the table. */
  shown: string | undefined;
  onLook: (next: { pose: string }) => void;
  onError: (error: unknown) => void;
}

/** Before anything is judged: which pictures cannot be compared with another round's, what the client was asked for, where their camera stands. */
export function Comparable({ roundId, table, poses, asking, onAsk, shown, onLook, onError }: Props) {
  const { t } = useTranslation();
  const names = useNames();
  const { length, said } = useQuantities();
  const askNoMore = useAskNoMore();
  const { spoilt, asked, set_up } = table;
  const far = (cm: number) => `${Math.round(length.of(cm))} ${length.unit}`;
  const open = spoilt.filter(({ pose }) => asked.every((ask) => ask.pose !== pose));
  return (
    <>
      {open.map(({ pose, says }) => (
        <Note
          key={pose}
          action={
            <>
              <Button size="small" onClick={() => onAsk(pose)}>
                {t("photos.ask.open")}
              </Button>
              {pose !== shown && (
                <Button size="small" type="link" onClick={() => onLook({ pose })}>
                  {t("photos.ask.look")}
                </Button>
              )}
            </>
          }
        >
          <strong>{names.pose(pose)}</strong> {said(says)} {t("photos.ask.spoils")}
        </Note>
      ))}
      {asked.map(({ pose, reason, asked_by, asked_at }) => (
        <Note
          key={pose}
          action={
            <Button
              size="small"
              onClick={() => askNoMore.mutate({ params: { path: { round_id: roundId, pose } } }, { onError })}
            >
              {t("photos.ask.takeBack")}
            </Button>
          }
        >
          <strong>{names.pose(pose)}</strong>{" "}
          {t("photos.ask.waits", { reason, by: asked_by, at: moment(asked_at) })}
        </Note>
      ))}
      {set_up && (
        <p className={styles.line}>
          {t("photos.ask.camera", {
            place: set_up.place || t("photos.ask.noPlace"),
            height: far(set_up.height_cm),
            distance: far(100 * set_up.distance_m),
            lens: t(`photos.ask.lenses.${set_up.lens}`),
          })}
        </p>
      )}
      {asking && (
        <AskDialog
          key={asking}
          roundId={roundId}
          poses={poses}
          first={asking}
          says={spoilt.find(({ pose }) => pose === asking)?.says}
          onClose={() => onAsk(undefined)}
          onError={onError}
        />
      )}
    </>
  );
}

interface AskProps {
  roundId: string;
  poses: { id: string; name: string }[];
  first: PhotoPose;
  /** What is wrong with the picture that is there. */
  says?: string;
  onClose: () => void;
  onError: (error: unknown) => void;
}

/** The reason is the coach's to write; what was found wrong stands beside. */
function AskDialog({ roundId, poses, first, says, onClose, onError }: AskProps) {
  const { t } = useTranslation();
  const { said } = useQuantities();
  const [pose, setPose] = useState(first);
  const [reason, setReason] = useState("");
  const ask = useAskAgain();
  const long = reason.trim().length > REASON_CHARS;
  return (
    <Dialog open title={t("photos.ask.title")} onClose={onClose}>
      <form
        className={styles.ask}
        onSubmit={(event) => {
          event.preventDefault();
          ask.mutate(
            { params: { path: { round_id: roundId } }, body: { pose, reason: reason.trim() } },
            { onError, onSuccess: onClose },
          );
        }}
      >
        <Select
          aria-label={t("photos.pose")}
          value={pose}
          onChange={setPose}
          options={poses.map(({ id, name }) => ({ value: id as PhotoPose, label: name }))}
        />
        {says && pose === first && <p className="quiet">{said(says)}</p>}
        <Input.TextArea
          aria-label={t("photos.ask.reason")}
          placeholder={t("photos.ask.example")}
          rows={3}
          value={reason}
          onChange={({ target }) => setReason(target.value)}
        />
        <Wrong>{long && t("photos.ask.long", { most: REASON_CHARS })}</Wrong>
        <p className="quiet">{t("photos.ask.goes")}</p>
        <Button
          type="primary"
          htmlType="submit"
          disabled={reason.trim() === "" || long}
          loading={ask.isPending}
        >
          {t("photos.ask.send")}
        </Button>
      </form>
    </Dialog>
  );
}

/** As the server takes it. */
const REASON_CHARS = 300;
