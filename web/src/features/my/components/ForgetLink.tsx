import { useState } from "react";
import { useTranslation } from "react-i18next";
import { forgetPictures, waitingCount } from "../../capture";
import { forgetSources, queuedCount } from "../../log/phone";
import { forgetToken } from "../token";

interface Props {
  token: string;
  /** Under which the phone keeps the week and what was logged. */
  source: string;
  onForgotten: () => void;
}

/** Forgets the link, the week, the log and the pictures on this phone; says first what was not sent yet. */
export function ForgetLink({ token, source, onForgotten }: Props) {
  const { t } = useTranslation();
  const [unsent, setUnsent] = useState<{ entries: number; pictures: number }>();
  const own = (other: string) => other === source;
  const forget = async () => {
    await forgetSources(own);
    await forgetPictures(token);
    forgetToken();
    onForgotten();
  };
  const ask = async () => setUnsent({ entries: await queuedCount(own), pictures: await waitingCount(token) });
  if (unsent === undefined)
    return (
      <button type="button" className="bare" onClick={() => void ask()}>
        {t("my.forget")}
      </button>
    );
  return (
    <p>
      {unsent.entries > 0 && `${t("my.forgetUnsent", { count: unsent.entries })} `}
      {unsent.pictures > 0 && `${t("my.forgetPictures", { count: unsent.pictures })} `}
      {unsent.entries + unsent.pictures === 0 && `${t("my.forgetHint")} `}
      <button type="button" className="bare" data-danger="" onClick={() => void forget()}>
        {t("my.forgetNow")}
      </button>{" "}
      <button type="button" className="bare" onClick={() => setUnsent(undefined)}>
        {t("my.keep")}
      </button>
    </p>
  );
}
