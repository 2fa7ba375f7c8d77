import { memo, useMemo } from "react";
import { useTranslation } from "react-i18next";
import type { Atlas } from "../../../shared/api/atlas";
import { namesOf } from "../../../shared/api/atlas";
import { LeanBar, PlumbLine } from "../../../shared/charts";
import { hundredths, useQuantities } from "../../../shared/format";
import { useNarrow } from "../../../shared/ui/useMedia";
import {
  type Assessment,
  areaOf,
  type Choices,
  type Group,
  type Pick,
  picturedOf,
  type RegionEntry,
  sidesKnown,
  standing,
} from "../model";
import styles from "./PlumbChart.module.css";

interface Props {
  atlas: Atlas;
  assessment: Assessment;
  groups: Group[];
  choices: Choices;
  picked?: Pick;
  restShown: boolean;
  /** All regions by need, when they are laid that way. */
  needs?: RegionEntry[];
  folded: ReadonlySet<string>;
  onPick: (pick: Pick) => void;
  onRest: () => void;
  onFold: (site: string) => void;
}

interface Parts extends Props {
  sided: Set<string>;
  widths: typeof WIDE;
}

/** Widths of the two lines, px; names need what is left of a phone. */
const WIDE = { plumb: 330, lean: 130 };
const NARROW = { plumb: 150, lean: 72 };
const SITE_HEIGHT = 26;
const REGION_HEIGHT = 20;

/** Taped sites and the regions they feed along one line, with the left-right line beside it. Each row opens. */
export const PlumbChart = memo(function PlumbChart(props: Props) {
  const { t } = useTranslation();
  const { groups, restShown, assessment } = props;
  const widths = useNarrow() ? NARROW : WIDE;
  const sided = useMemo(() => sidesKnown(assessment), [assessment]);
  const rest = groups.find(({ site }) => !site);
  return (
    <section aria-label={t("verdict.title")}>
      <div className={styles.scale}>
        <span />
        <span className={styles.words}>
          <span style={{ color: "var(--behind)" }}>‹ {t("verdict.behind")}</span>
          <span>{t("verdict.inProportion")}</span>
          <span style={{ color: "var(--ahead)" }}>{t("verdict.ahead")} ›</span>
        </span>
        <span className={styles.words}>
          <span style={{ color: "var(--left)" }}>‹ L</span>
          <span style={{ color: "var(--right)" }}>R ›</span>
        </span>
      </div>
      {props.needs?.map((region) => (
        <RegionRow key={region.region} {...props} sided={sided} widths={widths} region={region} need />
      ))}
      {(props.needs ? [] : groups).map(
        (group) =>
          group.site && (
            <SiteBlock
              key={group.site}
              {...props}
              sided={sided}
              widths={widths}
              site={group.site}
              regions={group.regions}
            />
          ),
      )}
      {!props.needs && rest && rest.regions.length > 0 && (
        <>
          <button type="button" className={styles.rest} aria-expanded={restShown} onClick={props.onRest}>
            {restShown ? "▾" : "▸"} {t("verdict.rest")} ({rest.regions.length})
            <span className="quiet"> {t("verdict.restHint")}</span>
          </button>
          {restShown &&
            rest.regions.map((region) => (
              <RegionRow key={region.region} {...props} sided={sided} widths={widths} region={region} />
            ))}
        </>
      )}
      <p className={`quiet ${styles.legend}`}>{t("verdict.legend")}</p>
    </section>
  );
});

function SiteBlock(props: Parts & { site: string; regions: RegionEntry[] }) {
  const { t } = useTranslation();
  const { length } = useQuantities();
  const { atlas, assessment, choices, site, regions, picked, folded, widths, onPick, onFold } = props;
  const shut = folded.has(site);
  const sized = assessment.reference.sites.find((entry) => entry.site === site);
  const sides = assessment.asymmetries.find((entry) => entry.site === site);
  const on = picked?.kind === "site" && picked.id === site;
  const part = areaOf(assessment, site);
  const seen = !sized && part ? picturedOf(assessment, site) : undefined;
  const area = sized || seen ? part : undefined;
  return (
    <div className={styles.block}>
      {regions.length > 0 && (
        <button
          type="button"
          className={styles.fold}
          aria-expanded={!shut}
          aria-label={t("verdict.fold", { site: namesOf(atlas).site(site), count: regions.length })}
          onClick={() => onFold(site)}
        >
          {shut ? "▸" : "▾"}
        </button>
      )}
      <button
        type="button"
        className={styles.site}
        aria-pressed={on}
        onClick={() => onPick({ kind: "site", id: site })}
      >
        <span>
          {choices.areas.includes(site) && (
            <span className={styles.chosen} role="img" aria-label={t("verdict.chosen")} />
          )}
          {area?.name ?? namesOf(atlas).site(site)}
          {area && <span className="sr-only"> {t(`verdict.${area.verdict}`)}</span>}
          {sized && (
            <span className={styles.size}>
              {" "}
              {length.text(sized.observed_cm)} {length.unit}
            </span>
          )}
          {seen && (
            <span className={styles.seen}>
              {" "}
              {t("verdict.seen", { value: length.text(seen.cm), unit: length.unit })}
            </span>
          )}
        </span>
        {area ? (
          <PlumbLine
            mean={area.mean}
            sd={area.sd}
            standing={area.verdict}
            width={widths.plumb}
            height={SITE_HEIGHT}
            shape="diamond"
          />
        ) : (
          <EmptyLine width={widths.plumb} height={SITE_HEIGHT} />
        )}
        {sides ? (
          <LeanBar
            percent={sides.symmetry_index}
            se={sides.se_index}
            width={widths.lean}
            height={SITE_HEIGHT}
          />
        ) : (
          <EmptyLine width={widths.lean} height={SITE_HEIGHT} />
        )}
      </button>
      {(shut ? [] : regions).map((region) => (
        <RegionRow key={region.region} {...props} region={region} />
      ))}
    </div>
  );
}

function RegionRow({
  atlas,
  choices,
  region,
  need,
  sided,
  widths,
  picked,
  onPick,
}: Parts & { region: RegionEntry; need?: boolean }) {
  const { t } = useTranslation();
  const id = region.region;
  const on = picked?.kind === "region" && picked.id === id;
  const chosen = choices.bring_up.includes(id);
  const held = choices.hold_back.includes(id);
  return (
    <button
      type="button"
      className={need ? styles.flat : styles.region}
      aria-pressed={on}
      onClick={() => onPick({ kind: "region", id })}
    >
      <span>
        {chosen && <span className={styles.chosen} role="img" aria-label={t("verdict.chosen")} />}
        {namesOf(atlas).region(id)}
        {held && <span className="quiet"> · {t("verdict.held").toLowerCase()}</span>}
        {need && (
          <span className="quiet"> · {t("verdict.needOf", { need: hundredths(region.bulk.need) })}</span>
        )}
        <span className="sr-only"> {t(`verdict.${standing(region)}`)}</span>
      </span>
      <PlumbLine
        mean={region.bulk.mean}
        sd={region.bulk.sd}
        standing={standing(region)}
        width={widths.plumb}
        height={REGION_HEIGHT}
      />
      {region.asymmetry && sided.has(id) ? (
        <LeanBar
          faint
          percent={region.asymmetry.mean}
          se={region.asymmetry.sd}
          width={widths.lean}
          height={REGION_HEIGHT}
        />
      ) : (
        <EmptyLine width={widths.lean} height={REGION_HEIGHT} />
      )}
    </button>
  );
}

/** The line goes on where nothing hangs from it. */
function EmptyLine({ width, height }: { width: number; height: number }) {
  return (
    <svg width={width} height={height} aria-hidden="true" style={{ display: "block" }}>
      <path d={`M${width / 2} 0V${height}`} stroke="var(--ink)" strokeWidth="1" opacity="0.55" />
    </svg>
  );
}
