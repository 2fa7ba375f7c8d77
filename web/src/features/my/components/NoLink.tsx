import { useState } from "react";
import { useTranslation } from "react-i18next";
import { Wrong } from "../../../shared/ui";
import styles from "../pages/MyPage.module.css";
import { tokenIn } from "../token";

/** Without a link: where one comes from, and a place to put it in, for a page on the home screen that came without. */
export function NoLink({ onLink }: { onLink: (token: string) => void }) {
  const { t } = useTranslation();
  const [pasted, setPasted] = useState("");
  const token = tokenIn(pasted);
  return (
    <main className={styles.shut}>
      <p>{t("my.noLink")}</p>
      <label>
        {t("my.paste")}
        <input value={pasted} autoComplete="off" onChange={(event) => setPasted(event.target.value)} />
      </label>
      {pasted.trim() !== "" && !token && <Wrong>{t("my.notALink")}</Wrong>}
      <button
        type="button"
        className="bare"
        data-main=""
        disabled={!token}
        onClick={() => token && onLink(token)}
      >
        {t("my.open")}
      </button>
    </main>
  );
}
