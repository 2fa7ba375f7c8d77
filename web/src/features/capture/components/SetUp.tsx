import { useState } from "react";
import { useTranslation } from "react-i18next";
import { type Quantities, type Quantity, useQuantities } from "../../../shared/format";
import { Wrong } from "../../../shared/ui";
import { type Door, useKeepSetUp } from "../api";
import type { SetUp as Stands } from "../model";
import styles from "./Capture.module.css";

const LENSES = ["wide", "main", "long"] as const;

interface Props {
  door: Door;
  now: Stands | undefined;
  onKept: (stands: Stands) => void;
  onLater: () => void;
}

/** Where the phone stands, in a line. */
export function useStands(): (stands: Stands) => string {
  const { t } = useTranslation();
  const { length } = useQuantities();
  return (stands) =>
    t(stands.place ? "capture.setUp.said" : "capture.setUp.saidShort", {
      place: stands.place,
      height: rounded(length, stands.height_cm),
      distance: rounded(length, 100 * stands.distance_m),
      lens: t(`capture.setUp.lenses.${stands.lens}`),
    });
}

/** No tape is read here to a tenth. */
const rounded = (length: Quantities["length"], cm: number): string =>
  `${Math.round(length.of(cm))} ${length.unit}`;

/** Asked once: where the phone stands, so that it stands there again. */
export function SetUp({ door, now, onKept, onLater }: Props) {
  const { t } = useTranslation();
  const { length, said } = useQuantities();
  const [place, setPlace] = useState(now?.place ?? "");
  const [height, setHeight] = useState(now ? length.typed(now.height_cm) : "");
  const [distance, setDistance] = useState(now ? length.typed(100 * now.distance_m) : "");
  const [lens, setLens] = useState<Stands["lens"]>(now?.lens ?? "main");
  const tell = useKeepSetUp(door);
  const [refused, setRefused] = useState<string>();
  const [height_cm, distance_cm] = [length.parse(height), length.parse(distance)];
  const keep = async () => {
    if (height_cm === undefined || distance_cm === undefined) return;
    const stands = { place, height_cm, distance_m: distance_cm / 100, lens };
    const says = await tell(stands);
    if (says) setRefused(says);
    else onKept(stands);
  };
  return (
    <form
      className={styles.form}
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <h2>{t("capture.setUp.title")}</h2>
      <p className="quiet">{t("capture.setUp.why")}</p>
      <label>
        {t("capture.setUp.place")}
        <input
          value={place}
          maxLength={120}
          placeholder={t("capture.setUp.placeExample")}
          onChange={(event) => setPlace(event.target.value)}
        />
      </label>
      <Length
        label={t("capture.setUp.height", { unit: length.unit })}
        text={height}
        quantity={length}
        onType={setHeight}
      />
      <Length
        label={t("capture.setUp.distance", { unit: length.unit })}
        text={distance}
        quantity={length}
        onType={setDistance}
      />
      <fieldset className={styles.choices}>
        <legend>{t("capture.setUp.lens")}</legend>
        {LENSES.map((one) => (
          <button key={one} type="button" aria-pressed={lens === one} onClick={() => setLens(one)}>
            {t(`capture.setUp.lenses.${one}`)}
          </button>
        ))}
      </fieldset>
      <Wrong>{refused && said(refused)}</Wrong>
      <button
        type="submit"
        className={styles.main}
        disabled={height_cm === undefined || distance_cm === undefined}
      >
        {t("capture.setUp.keep")}
      </button>
      <button type="button" className="bare" onClick={onLater}>
        {t("capture.setUp.later")}
      </button>
    </form>
  );
}

interface LengthProps {
  label: string;
  text: string;
  quantity: Quantity;
  onType: (text: string) => void;
}

function Length({ label, text, quantity, onType }: LengthProps) {
  const { t } = useTranslation();
  const wrong = text.trim() !== "" && quantity.parse(text) === undefined;
  return (
    <label>
      {label}
      <input
        inputMode="decimal"
        value={text}
        aria-invalid={wrong}
        onChange={(event) => onType(event.target.value)}
      />
      <Wrong>{wrong && t("capture.setUp.notNumber")}</Wrong>
    </label>
  );
}
