import { useEffect, useMemo } from "react";
import { useTranslation } from "react-i18next";
import { useSession } from "../../signin/api";
import { TrainingLog } from "../components/TrainingLog";
import { goOffline } from "../offline";
import { coachSource } from "../source";

/** A client's session on the coach's phone. */
export function TrainPage({ clientId }: { clientId: string }) {
  const { t } = useTranslation();
  const session = useSession();
  const writer = session.data?.name ?? "";
  const source = useMemo(() => coachSource(clientId, writer), [clientId, writer]);
  useEffect(goOffline, []);
  return (
    <TrainingLog
      source={source}
      title={t("log.page.title")}
      // The desk is another page: it comes fresh.
      onLeave={() => window.location.assign(`/clients/${clientId}`)}
    />
  );
}
