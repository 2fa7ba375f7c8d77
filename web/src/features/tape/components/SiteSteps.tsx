import { Button, Select } from "antd";
import { useTranslation } from "react-i18next";
import type { Place } from "../model";
import styles from "./TapeSheet.module.css";

interface Props {
  places: Place[];
  at: Place;
  /** Whether something was read there. */
  filled: (place: Place) => boolean;
  onGo: (place: Place) => void;
}

/** On a phone one site is on the screen: which, and the way to the next and to any other. */
export function SiteSteps({ places, at, filled, onGo }: Props) {
  const { t } = useTranslation();
  const here = places.findIndex(({ key }) => key === at.key);
  const [before, after] = [places[here - 1], places[here + 1]];
  return (
    <nav className={styles.steps} aria-label={t("tape.sites")}>
      <Button
        size="large"
        disabled={!before}
        aria-label={t("tape.before")}
        onClick={() => before && onGo(before)}
      >
        ‹
      </Button>
      <Select
        size="large"
        value={at.key}
        aria-label={t("tape.sites")}
        onChange={(key) => {
          const next = places.find((place) => place.key === key);
          if (next) onGo(next);
        }}
        options={places.map((place, index) => ({
          value: place.key,
          label: `${index + 1}. ${place.name}${filled(place) ? " ✓" : ""}`,
        }))}
      />
      <Button size="large" type="primary" disabled={!after} onClick={() => after && onGo(after)}>
        {t("tape.next")} ›
      </Button>
    </nav>
  );
}
