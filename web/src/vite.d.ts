declare module "virtual:palette.css";

/** Cuts a font down to letters and weights. */
declare module "subset-font" {
  interface Options {
    targetFormat: "woff2";
    variationAxes?: Record<string, { min: number; max: number }>;
  }
  export default function subsetFont(font: Buffer, letters: string, options: Options): Promise<Buffer>;
}
