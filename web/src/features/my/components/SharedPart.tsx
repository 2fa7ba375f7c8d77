import { useEffect, useState } from "react";
import { useTranslation } from "react-i18next";
import type { Schemas } from "../../../shared/api/client";
import { PlumbLine } from "../../../shared/charts";
import { day, useQuantities } from "../../../shared/format";
import { SideMark } from "../../../shared/ui";
import { standingTone } from "../../../shared/ui/standing";
import { myPhoto } from "../api";
import styles from "../pages/MyPage.module.css";

/** What the coach shares; what is not shared is not here. */
export function SharedPart({ token, shared }: { token: string; shared: Schemas["SharedView"] }) {
  const { t } = useTranslation();
  const { length } = useQuantities();
  const { priorities, areas, standings, sides, girths, photos } = shared;
  const nothing = [priorities, areas, standings, sides, girths, photos].every((part) => part.length === 0);
  if (nothing) return <p>{t("my.nothingShared")}</p>;
  return (
    <>
      {shared.date && <p className="quiet">{t("my.sharedOf", { date: day(shared.date) })}</p>}
      {priorities.length > 0 && <h2>{t("my.priorities")}</h2>}
      {priorities.map(({ region, name }) => (
        <div key={region} className={styles.row}>
          <strong>{name}</strong>
        </div>
      ))}
      {standings.length + areas.length > 0 && (
        <>
          <h2>{t("my.standings")}</h2>
          <p className="quiet">{t("my.standingsHint")}</p>
        </>
      )}
      {areas.map(({ area, name, mean, sd, standing }) => (
        <div key={area} className={styles.row}>
          <strong>{name}</strong>
          <PlumbLine mean={mean} sd={sd} standing={standing} width={92} height={20} />
          <span style={{ color: standingTone(standing).colour }}>{t(`verdict.${standing}`)}</span>
        </div>
      ))}
      {standings.map(({ region, name, mean, sd, standing }) => (
        <div key={region} className={styles.row}>
          <span>{name}</span>
          <PlumbLine mean={mean} sd={sd} standing={standing} width={92} height={20} />
          <span style={{ color: standingTone(standing).colour }}>{t(`verdict.${standing}`)}</span>
        </div>
      ))}
      {sides.length > 0 && <h2>{t("my.sides")}</h2>}
      {sides.map(({ site, name, left_cm, right_cm, verdict }) => (
        <div key={site} className={styles.row}>
          <span>
            {name}
            {verdict === "within-error" && <span className="quiet"> {t("my.alike")}</span>}
          </span>
          <span>
            <SideMark side="left" /> {length.text(left_cm)}
          </span>
          <span>
            <SideMark side="right" /> {length.text(right_cm)} {length.unit}
          </span>
        </div>
      ))}
      {girths.length > 0 && <h2>{t("my.girths")}</h2>}
      {girths.map(({ site, side, name, value_cm, change_cm, real }) => (
        <div key={`${site} ${side ?? ""}`} className={styles.row}>
          <span>
            {name} {side && <SideMark side={side} />}
          </span>
          <span>
            {length.text(value_cm)} {length.unit}
          </span>
          <span className={real ? undefined : "quiet"}>
            {change_cm != null && (real ? length.change(change_cm) : t("my.noChange"))}
          </span>
        </div>
      ))}
      {photos.length > 0 && <h2>{t("my.photos")}</h2>}
      <div className={styles.photos}>
        {photos.map((photo) => (
          <Picture key={photo.id} token={token} photo={photo} />
        ))}
      </div>
    </>
  );
}

function Picture({ token, photo }: { token: string; photo: Schemas["SharedPhoto"] }) {
  const [address, setAddress] = useState<string>();
  useEffect(() => {
    let made: string | undefined;
    let gone = false;
    void myPhoto(token, photo.id).then((url) => {
      made = url;
      if (gone && url) URL.revokeObjectURL(url);
      else setAddress(url);
    });
    return () => {
      gone = true;
      if (made) URL.revokeObjectURL(made);
    };
  }, [token, photo.id]);
  return (
    <figure>
      {address && <img src={address} alt={`${photo.pose ?? ""} ${day(photo.date)}`} />}
      <figcaption>
        {photo.pose} · {day(photo.date)}
      </figcaption>
    </figure>
  );
}
