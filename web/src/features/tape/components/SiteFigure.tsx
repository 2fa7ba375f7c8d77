import type { ReactNode } from "react";
import { HALF } from "../../../shared/figure";
import type { Place } from "../model";

interface Mark {
  y: number;
  spans: [number, number][];
}

/** Where each fold lies; on the limbs, the client's right. */
const FOLDS: Record<string, Mark> = {
  triceps: { y: 108, spans: [[48, 54]] },
  biceps: { y: 112, spans: [[56, 62]] },
  subscapular: { y: 100, spans: [[74, 82]] },
  chest: { y: 92, spans: [[72, 80]] },
  midaxillary: { y: 118, spans: [[68, 74]] },
  suprailiac: { y: 168, spans: [[68, 78]] },
  abdominal: { y: 162, spans: [[90, 96]] },
  thigh: { y: 244, spans: [[78, 88]] },
  calf: { y: 322, spans: [[88, 95]] },
};

/** Where each site lies on the figure: height, from where to where. The client faces us, so their left is on our right. */
const SITES: Record<string, Mark> = {
  head: { y: 22, spans: [[84, 116]] },
  neck: { y: 51, spans: [[88, 112]] },
  shoulder: { y: 80, spans: [[52, 148]] },
  biacromial: { y: 66, spans: [[60, 140]] },
  chest: { y: 102, spans: [[66, 134]] },
  "arm-relaxed": {
    y: 112,
    spans: [
      [48, 66],
      [134, 152],
    ],
  },
  "arm-flexed": {
    y: 116,
    spans: [
      [46, 66],
      [134, 154],
    ],
  },
  "elbow-breadth": {
    y: 144,
    spans: [
      [42, 60],
      [140, 158],
    ],
  },
  forearm: {
    y: 162,
    spans: [
      [37, 56],
      [144, 163],
    ],
  },
  wrist: {
    y: 196,
    spans: [
      [30, 44],
      [156, 170],
    ],
  },
  "wrist-breadth": {
    y: 199,
    spans: [
      [29, 43],
      [157, 171],
    ],
  },
  waist: { y: 146, spans: [[72, 128]] },
  abdomen: { y: 162, spans: [[70, 130]] },
  biiliac: { y: 174, spans: [[70, 130]] },
  hip: { y: 192, spans: [[64, 136]] },
  thigh: {
    y: 222,
    spans: [
      [64, 99],
      [101, 136],
    ],
  },
  "mid-thigh": {
    y: 250,
    spans: [
      [66, 98],
      [102, 134],
    ],
  },
  knee: {
    y: 290,
    spans: [
      [72, 96],
      [104, 128],
    ],
  },
  "knee-breadth": {
    y: 294,
    spans: [
      [72, 96],
      [104, 128],
    ],
  },
  calf: {
    y: 322,
    spans: [
      [70, 96],
      [104, 130],
    ],
  },
  ankle: {
    y: 364,
    spans: [
      [78, 94],
      [106, 122],
    ],
  },
  "ankle-breadth": {
    y: 370,
    spans: [
      [77, 95],
      [105, 123],
    ],
  },
};

/** The figure with the tape, or the pinched fold, where the site is; the level in a sentence, and what is noted of it. */
export function SiteFigure({ place, children }: { place?: Place; children?: ReactNode }) {
  const mark = place && (place.device === "calipers" ? FOLDS : SITES)[place.id];
  return (
    <figure style={{ margin: 0 }}>
      <svg viewBox="20 0 160 400" width="150" aria-hidden="true">
        <g fill="var(--sunken)" stroke="var(--muted)" strokeWidth="1.2">
          <path d={HALF} transform="translate(100 0)" />
          <path d={HALF} transform="translate(100 0) scale(-1 1)" />
        </g>
        <path d="M100 0V396" stroke="var(--ink)" strokeWidth="0.7" strokeDasharray="2 3" opacity="0.6" />
        {mark?.spans.map(([from, to]) => (
          <path
            key={from}
            d={`M${from} ${mark.y}q${(to - from) / 2} 5 ${to - from} 0`}
            fill="none"
            stroke="var(--accent)"
            strokeWidth="3"
            strokeLinecap="round"
          />
        ))}
      </svg>
      <figcaption style={{ marginTop: 8, minHeight: 118 }}>
        <strong>{place?.name}</strong>
        <br />
        {place?.level}
        {children}
      </figcaption>
    </figure>
  );
}
