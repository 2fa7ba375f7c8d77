import { useState } from "react";
import { useTranslation } from "react-i18next";
import { forgetSources, queuedCount } from "../../log/phone";
import { forgetToken } from "../token";

interface Props {
  /** Under which the phone keeps the week and what was logged. */
  source: string;
  onForgotten: () => void;
}

/** Forgets the link, the week and the log on this phone; says first what was not sent yet. */
export function ForgetLink({ source, onForgotten }: Props) {
  const { t } = useTranslation();
  const [unsent, setUnsent] = useState<number>();
  const own = (other: string) => other === source;
  const forget = async () => {
    await forgetSources(own);
    forgetToken();
    onForgotten();
  };
  if (unsent === undefined)
    return (
      <button type="button" className="bare" onClick={() => void queuedCount(own).then(setUnsent)}>
        {t("my.forget")}
      </button>
    );
  return (
    <p>
      {unsent > 0 ? t("my.forgetUnsent", { count: unsent }) : t("my.forgetHint")}{" "}
      <button type="button" className="bare" data-danger="" onClick={() => void forget()}>
        {t("my.forgetNow")}
      </button>{" "}
      <button type="button" className="bare" onClick={() => setUnsent(undefined)}>
        {t("my.keep")}
      </button>
    </p>
  );
}
