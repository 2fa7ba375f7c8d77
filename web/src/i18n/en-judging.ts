// Texts of judging by eye.

export const judging = {
  standing: "Against the rest of this build",
  sides: "Left against right",
  stops: {
    standing: ["clearly behind", "behind", "level", "ahead", "clearly ahead"],
    sides: ["left much larger", "left larger", "same", "right larger", "right much larger"],
  },
  cannotTell: "Can't tell",
  agreement_one: "{{count}} repeat: {{sd}} steps apart.",
  agreement_other: "{{count}} repeats: {{sd}} steps apart.",
  kappa: "Agreement beyond chance (kappa) {{kappa}}.",
  worth:
    "A rating counts as {{sd}} steps off the truth: alone it takes {{share}}\u00a0% of what is not known about a region.",
  girths_one: "One girth beside your ratings counts as well.",
  girths_other: "{{count}} girths beside your ratings count as well.",
  learned: "Learned from {{count}} answers whose truth is known.",
  usual:
    "How true the eye is counts as usual until {{needed}} answers about made-up figures are known ({{count}} now).",
} as const;
