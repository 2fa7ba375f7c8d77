import { useEffect, useMemo } from "react";
import { useTranslation } from "react-i18next";
import { useNavigate, useParams } from "react-router";
import { useSession } from "../../signin";
import { TrainingLog } from "../components/TrainingLog";
import { goOffline } from "../offline";
import { coachSource } from "../source";

/** A client's session on the coach's phone. */
export function TrainPage() {
  const { t } = useTranslation();
  const { clientId = "" } = useParams();
  const navigate = useNavigate();
  const session = useSession();
  const writer = session.data?.name ?? "";
  const source = useMemo(() => coachSource(clientId, writer), [clientId, writer]);
  useEffect(goOffline, []);
  return (
    <TrainingLog
      source={source}
      title={t("log.page.title")}
      onLeave={() => navigate(`/clients/${clientId}`)}
    />
  );
}
