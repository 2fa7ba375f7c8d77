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

/** The client's left half, from the top of the head down the outside and up the inside of the leg; the right mirrors it. */
const HALF =
  "M0 4C11 4 17 12 17 23C17 32 13 39 8 43L9 53C12 58 21 61 30 63C42 66 48 74 49 87C50 101 54 113 56 125C58 136 62 145 64 158" +
  "L71 198L76 214C77 218 72 220 69 217L62 203L50 160C46 150 44 142 42 132L35 110C33 123 29 133 27 145C29 155 34 165 36 176" +
  "C38 190 37 206 35 222C33 242 30 262 29 282C29 298 32 308 30 322L23 367L31 379C33 383 30 385 26 385L9 385C7 385 6 383 6 381" +
  "L7 366C5 345 3 335 4 322C5 308 6 300 5 288C4 262 2 240 1 212L0 206";

/** The figure with the tape where the site is, and the level in a sentence. */
export function SiteFigure({ site }: { site?: Site }) {
  const place = site && PLACES[site.id];
  return (
    <figure style={{ margin: 0 }}>
      <svg viewBox="20 0 160 400" width="150" aria-hidden="true">
        <g fill="var(--sunken)" stroke="var(--muted)" strokeWidth="1.2">
          <path d={HALF} transform="translate(100 0)" />
          <path d={HALF} transform="translate(100 0) scale(-1 1)" />
        </g>
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
