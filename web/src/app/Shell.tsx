import { use, useState } from "react";
import { useTranslation } from "react-i18next";
import { NavLink, Outlet, useNavigate } from "react-router";
import { useSession } from "../features/signin";
import { PlumbMark } from "../shared/ui";
import { useKeys } from "../shared/ui/keys";
import { KeysDialog } from "./KeysDialog";
import styles from "./Shell.module.css";
import { SignOut } from "./SignOut";
import { ThemeChoice } from "./themeChoice";

/** The frame of every page: wordmark, places, who is signed in. */
export function Shell() {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const session = useSession();
  const { theme, toggle } = use(ThemeChoice);
  const [keysShown, setKeysShown] = useState(false);
  useKeys({
    "?": () => setKeysShown(true),
    "g d": () => navigate("/today"),
    "g c": () => navigate("/clients"),
    "g x": () => navigate("/library"),
    "g e": () => navigate("/eye"),
    "g s": () => navigate("/practice"),
  });
  return (
    <div className={styles.frame}>
      <a className="sr-only" href="#content">
        {t("app.skip")}
      </a>
      <header className={styles.header}>
        <NavLink to="/today" className={styles.wordmark} aria-label={t("app.name")}>
          <PlumbMark />
          <span>{t("app.name")}</span>
        </NavLink>
        <nav className={styles.places} aria-label={t("app.name")}>
          <NavLink to="/today">{t("app.today")}</NavLink>
          <NavLink to="/clients">{t("app.clients")}</NavLink>
          <NavLink to="/library">{t("app.library")}</NavLink>
          <NavLink to="/eye">{t("app.eye")}</NavLink>
          <NavLink to="/practice">{t("app.practice")}</NavLink>
        </nav>
        <div className={styles.tools}>
          <span className="quiet">{session.data?.name}</span>
          <button type="button" onClick={toggle}>
            {theme === "paper" ? t("app.night") : t("app.paper")}
          </button>
          <button type="button" onClick={() => setKeysShown(true)} aria-keyshortcuts="?">
            {t("app.keys")} <kbd>?</kbd>
          </button>
          <SignOut />
        </div>
      </header>
      <div id="content" className={styles.content}>
        <Outlet />
      </div>
      <KeysDialog open={keysShown} onClose={() => setKeysShown(false)} />
    </div>
  );
}
