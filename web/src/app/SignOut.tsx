import { App, Button } from "antd";
import { useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { forgetSources, queuedCount } from "../features/log/db";
import { ofCoach } from "../features/log/source";
import { useSignOut } from "../features/signin/api";
import { problemOf } from "../shared/api/client";
import { draftCount, dropDrafts } from "../shared/save";
import { Dialog } from "../shared/ui";

/** Signs out and leaves nothing of the practice on this device; asks first when something of it is not saved. */
export function SignOut() {
  const { t } = useTranslation();
  const { message } = App.useApp();
  const signOut = useSignOut();
  const [unsaved, setUnsaved] = useState(0);
  useEffect(() => {
    if (signOut.error) message.error(problemOf(signOut.error)?.detail ?? t("error.unknown"));
  }, [signOut.error, message, t]);
  const leave = async () => {
    setUnsaved(0);
    dropDrafts();
    await forgetSources(ofCoach);
    signOut.mutate({});
  };
  const ask = async () => {
    const count = draftCount() + (await queuedCount(ofCoach));
    if (count > 0) setUnsaved(count);
    else await leave();
  };
  return (
    <>
      <button type="button" onClick={() => void ask()}>
        {t("app.signOut")}
      </button>
      <Dialog open={unsaved > 0} title={t("app.signOut")} onClose={() => setUnsaved(0)}>
        <p>{t("app.unsaved", { count: unsaved })}</p>
        <Button danger type="primary" onClick={() => void leave()}>
          {t("app.forgetAndLeave")}
        </Button>{" "}
        <Button onClick={() => setUnsaved(0)}>{t("app.stay")}</Button>
      </Dialog>
    </>
  );
}
