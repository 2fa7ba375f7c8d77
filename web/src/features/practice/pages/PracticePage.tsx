import { useTranslation } from "react-i18next";
import { useAtlas } from "../../../shared/api/atlas";
import { useMay } from "../../../shared/api/may";
import { Async, failed, Title } from "../../../shared/ui";
import { useAccuracy, useMeasurers, usePeople, usePractice } from "../api";
import { Accuracy } from "../components/Accuracy";
import { DataSection } from "../components/DataSection";
import { Deeds } from "../components/Deeds";
import { Measurers } from "../components/Measurers";
import { OwnUnits } from "../components/OwnUnits";
import { People } from "../components/People";
import { SettingsForm } from "../components/SettingsForm";
import styles from "./PracticePage.module.css";

/** The practice: who measures how well, who works here, and what it sets for all its clients. */
export function PracticePage() {
  const { t } = useTranslation();
  const may = useMay();
  const atlas = useAtlas();
  const practice = usePractice();
  const people = usePeople();
  const measurers = useMeasurers();
  const accuracy = useAccuracy();
  if (
    failed(atlas, practice, people, measurers, accuracy) ||
    !atlas.data ||
    !practice.data ||
    !people.data ||
    !measurers.data ||
    !accuracy.data
  )
    return <Async of={[atlas, practice, people, measurers, accuracy]} />;
  return (
    <main className={styles.page}>
      <Title of={t("practice.title")} />
      <h1>{t("practice.title")}</h1>
      <div className={styles.columns}>
        <div>
          <OwnUnits />
          <Measurers measurers={measurers.data} />
          <Accuracy accuracy={accuracy.data} />
          <People people={people.data} acts={practice.data.acts} mayChange={practice.data.may_change} />
          <DataSection />
          {may("audit") && <Deeds />}
        </div>
        <SettingsForm
          atlas={atlas.data}
          practice={practice.data}
          refetch={async () => (await practice.refetch()).data}
        />
      </div>
    </main>
  );
}
