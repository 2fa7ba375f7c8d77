import { Button } from "antd";
import { useState } from "react";
import { useTranslation } from "react-i18next";
import { useNavigate } from "react-router";
import { today } from "../../../shared/format";
import { DateInput, Dialog, ErrorNote } from "../../../shared/ui";
import { useDeleteRound, useRedateRound } from "../api";

interface Props {
  clientId: string;
  roundId: string;
  date: string;
  open: boolean;
  onClose: () => void;
}

/** Gives a round another day, or removes one that was opened by mistake. */
export function RoundDialog({ clientId, roundId, date, open, onClose }: Props) {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const [on, setOn] = useState(date);
  const [sure, setSure] = useState(false);
  const redating = useRedateRound();
  const deleting = useDeleteRound();
  const params = { path: { round_id: roundId } };
  const remove = () =>
    deleting.mutate(
      { params },
      { onSuccess: () => navigate(`/clients/${clientId}`, { replace: true }), onError: () => setSure(false) },
    );
  const error = redating.error ?? deleting.error;
  return (
    <Dialog open={open} title={t("round.change")} onClose={onClose}>
      {error && <ErrorNote error={error} />}
      <p>
        <label htmlFor="round-day">{t("round.date")}</label>
        <DateInput id="round-day" max={today()} value={on} onChange={setOn} />
      </p>
      <Button
        type="primary"
        disabled={!on || on === date}
        loading={redating.isPending}
        onClick={() => redating.mutate({ params, body: { date: on } }, { onSuccess: onClose })}
      >
        {t("round.saveDay")}
      </Button>{" "}
      {sure ? (
        <>
          <Button danger type="primary" loading={deleting.isPending} onClick={remove}>
            {t("round.removeNow")}
          </Button>{" "}
          <Button onClick={() => setSure(false)}>{t("round.stays")}</Button>
        </>
      ) : (
        <Button danger onClick={() => setSure(true)}>
          {t("round.remove")}
        </Button>
      )}
    </Dialog>
  );
}
