/** From straw, where it is sunny, to slate, where it is shaded. */

const STRAW = [240, 217, 160] as const;
const SLATE = [62, 78, 80] as const;
/** A share lost this large is as dark as it gets, unless the array holds a worse one. */
const DARK_FRAC = 0.12;

/** Where black and white stand out alike. */
const MIDDLE = 0.179;

/** Relative luminance of sRGB channels, 0 to 255 (WCAG 2). */
export function luminance(rgb: readonly number[]): number {
  const [r = 0, g = 0, b = 0] = rgb.map((v) => {
    const c = v / 255;
    return c <= 0.03928 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

export interface Tint {
  fill: string;
  /** Words on it: dark on straw, light on slate. */
  ink: string;
}

export function shadeTint(lostFrac: number, worstFrac: number): Tint {
  const share = Math.min(1, Math.max(0, lostFrac / Math.max(worstFrac, DARK_FRAC)));
  const rgb = STRAW.map((from, i) => Math.round(from + ((SLATE[i] ?? 0) - from) * share));
  return {
    fill: `rgb(${rgb.join(' ')})`,
    // Half way neither ink nor sheet stands out enough: black or white does.
    ink: luminance(rgb) > MIDDLE ? '#000' : '#fff',
  };
}
