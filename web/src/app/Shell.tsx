import { lazy, Suspense, use, useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import { NavLink, Outlet, useNavigate } from "react-router";
import { useSession } from "../features/signin/api";
import { othersDraftCount } from "../shared/save";
import { NewVersion, PlumbMark } from "../shared/ui";
import { shortcut } from "../shared/ui/acts";
import { useKeys } from "../shared/ui/keys";
import { Palette } from "./Palette";
import styles from "./Shell.module.css";
import { SignOut } from "./SignOut";
import { ThemeChoice } from "./themeChoice";
import { useHeadingFocus } from "./useHeadingFocus";
import { useNewVersion } from "./useNewVersion";

const KeysDialog = lazy(() => import("./KeysDialog"));

/** The frame of every page: wordmark, places, who is signed in. */
export function Shell() {
  const { t } = useTranslation();
  const navigate = useNavigate();
  const session = useSession();
  const { theme, toggle } = use(ThemeChoice);
  const [keysShown, setKeysShown] = useState(false);
  const newer = useNewVersion();
  const [waiting] = useState(othersDraftCount);
  const [told, setTold] = useState(false);
  const [finding, setFinding] = useState(false);
  useHeadingFocus();
  useEffect(() => {
    // Also out of a field: it is how one leaves for another page without the mouse.
    const onKey = (event: KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== "k") return;
      event.preventDefault();
      setFinding(true);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  const themeName = theme === "paper" ? t("app.night") : t("app.paper");
  useKeys({
    help: () => setKeysShown(true),
    goToday: () => navigate("/today"),
    goClients: () => navigate("/clients"),
    goLibrary: () => navigate("/library"),
    goEye: () => navigate("/eye"),
    goPractice: () => navigate("/practice"),
  });
  return (
    <div className={styles.frame}>
      <a className={styles.skip} href="#content">
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
          <button
            type="button"
            className={styles.goTo}
            onClick={() => setFinding(true)}
            aria-keyshortcuts="Control+K"
          >
            {t("palette.button")} <kbd>Ctrl K</kbd>
          </button>
          <button type="button" className={styles.theme} onClick={toggle}>
            {themeName}
          </button>
          <button
            type="button"
            className={styles.keys}
            onClick={() => setKeysShown(true)}
            aria-keyshortcuts={shortcut("help")}
          >
            {t("app.keys")} <kbd>?</kbd>
          </button>
          <SignOut />
        </div>
      </header>
      {newer && <NewVersion onTake={() => window.location.reload()} />}
      {waiting > 0 && !told && (
        <p role="status" className={styles.notice}>
          {t("app.othersWait", { count: waiting })}{" "}
          <button type="button" className="text-button" onClick={() => setTold(true)}>
            {t("close")}
          </button>
        </p>
      )}
      <div id="content" tabIndex={-1} className={styles.content}>
        <Outlet />
      </div>
      <Palette
        open={finding}
        onClose={() => setFinding(false)}
        acts={[
          { name: themeName, act: toggle },
          { name: t("keys.title"), act: () => setKeysShown(true) },
        ]}
      />
      <Suspense>{keysShown && <KeysDialog onClose={() => setKeysShown(false)} />}</Suspense>
    </div>
  );
}
