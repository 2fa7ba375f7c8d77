import type { Site } from "../model";

/** Where each site lies on the figure: height, from where to where. The client faces us, so their left is on our right. */
const PLACES: Record<string, { y: number; spans: [number, number][] }> = {
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

const OUTLINE =
  "M100 4c-11 0-17 8-17 19 0 9 4 16 9 20l-1 10c-3 5-12 8-21 10-12 3-18 11-19 24-1 14-5 26-7 38-2 11-6 20-8 33l-7 40-5 16c-1 4 4 6 7 3l7-14 12-43c4-10 6-18 8-28l7-22c2 13 6 23 8 35-2 10-5 20-7 31-2 14-1 30 1 46 2 20 5 40 6 60 0 16-3 26-2 40l7 45-8 12c-2 4 1 6 5 6h17c2 0 3-2 3-4l1-58c2-14 3-26 2-40l3-52c1-18 2-30 3-44h6c1 14 2 26 3 44l3 52c-1 14 0 26 2 40l1 58c0 2 1 4 3 4h17c4 0 7-2 5-6l-8-12 7-45c1-14-2-24-2-40 1-20 4-40 6-60 2-16 3-32 1-46-2-11-5-21-7-31 2-12 6-22 8-35l7 22c2 10 4 18 8 28l12 43 7 14c3 3 8 1 7-3l-5-16-7-40c-2-13-6-22-8-33-2-12-6-24-7-38-1-13-7-21-19-24-9-2-18-5-21-10l-1-10c5-4 9-11 9-20 0-11-6-19-17-19z";

/** The figure with the tape where the site is, and the level in a sentence. */
export function SiteFigure({ site }: { site?: Site }) {
  const place = site && PLACES[site.id];
  return (
    <figure style={{ margin: 0 }}>
      <svg viewBox="20 0 160 400" width="190" aria-hidden="true">
        <path d={OUTLINE} fill="var(--sunken)" stroke="var(--muted)" strokeWidth="1.200" />
        <path d="M100 0V396" stroke="var(--ink)" strokeWidth="0.700" strokeDasharray="2 3" opacity="0.6" />
        {place?.spans.map(([from, to]) => (
          <path
            key={from}
            d={`M${from} ${place.y}q${(to - from) / 2} 5 ${to - from} 0`}
            fill="none"
            stroke="var(--accent)"
            strokeWidth="3"
            strokeLinecap="round"
          />
        ))}
      </svg>
      <figcaption style={{ marginTop: 8 }}>
        <strong>{site?.name}</strong>
        <br />
        {site?.level}
      </figcaption>
    </figure>
  );
}
