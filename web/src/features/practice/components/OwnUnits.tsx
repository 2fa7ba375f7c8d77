import { useState } from "react";
import { useTranslation } from "react-i18next";
import type { Measures } from "../../../shared/format";
import { ErrorNote, Section, UnitChoices } from "../../../shared/ui";
import { useSaveMeasures, useSession } from "../../signin/api";

/** In which units whoever is signed in reads and types; everything is kept metric, and clients have their own. */
export function OwnUnits() {
  const { t } = useTranslation();
  const session = useSession();
  const save = useSaveMeasures();
  const [chosen, setChosen] = useState<Measures>();
  return (
    <Section title={t("units.own")}>
      <p className="quiet">{t("units.hint")}</p>
      <UnitChoices
        value={chosen ?? session.data?.measures}
        onChange={(body) => {
          // Shown at once: a second choice made before the first was kept must not take it back.
          setChosen(body);
          save.mutate({ body }, { onSettled: () => setChosen(undefined) });
        }}
      />
      {save.error ? <ErrorNote error={save.error} /> : null}
    </Section>
  );
}
