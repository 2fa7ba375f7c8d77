import { useTranslation } from "react-i18next";
import { Title } from "../../../shared/ui";
import { FirstLook } from "../components/FirstLook";
import styles from "./TourPage.module.css";

/** The first look, for whoever wants it again. */
export function TourPage() {
  const { t } = useTranslation();
  return (
    <main className={styles.page}>
      <Title of={t("tour.title")} />
      <h1>{t("tour.title")}</h1>
      <FirstLook />
    </main>
  );
}
