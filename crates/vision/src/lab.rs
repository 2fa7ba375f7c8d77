//! CIE L*a*b* colours (CIE 15:2004) of sRGB pixels (IEC 61966-2-1), white point D65.

/// A colour: lightness 0 to 100, green to red, blue to yellow.
pub type Lab = [f64; 3];

/// White point D65, two-degree observer.
const WHITE: [f64; 3] = [0.950_47, 1.0, 1.088_83];

/// The colour of an sRGB pixel.
///
/// ```
/// let [lightness, a, b] = vision::lab([255, 255, 255]);
/// assert!((lightness - 100.0).abs() < 0.01 && a.abs() < 0.02 && b.abs() < 0.02);
/// ```
#[expect(clippy::many_single_char_names, reason = "colours go by one letter")]
pub fn lab(rgb: [u8; 3]) -> Lab {
    let [r, g, b] = rgb.map(|value| {
        let value = f64::from(value) / 255.0;
        if value > 0.040_45 { ((value + 0.055) / 1.055).powf(2.4) } else { value / 12.92 }
    });
    let xyz = [
        0.412_453 * r + 0.357_580 * g + 0.180_423 * b,
        0.212_671 * r + 0.715_160 * g + 0.072_169 * b,
        0.019_334 * r + 0.119_193 * g + 0.950_227 * b,
    ];
    let [x, y, z] = [0, 1, 2].map(|i| {
        let t = xyz[i] / WHITE[i];
        if t > 0.008_856 { t.cbrt() } else { 7.787 * t + 16.0 / 116.0 }
    });
    [116.0 * y - 16.0, 500.0 * (x - y), 200.0 * (y - z)]
}
