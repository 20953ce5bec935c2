/**
 * Lengths as people write them: the echo while somebody types.  The server's reader decides;
 * both readers pass the same table, tests/shared/lengths.json.
 */
export type LengthUnit = 'm' | 'ft';

const M_PER_FT = 0.3048;
const M_PER_IN = 0.0254;
const NUMBER = '\\d+(?:[.,]\\d+)?|[.,]\\d+';
const FRACTION = '\\d+\\s*/\\s*\\d+';
const METRIC = new RegExp(`^(?<n>${NUMBER})\\s*(?<u>mm|cm|m)$`);
const BARE = new RegExp(`^(?:${NUMBER})$`);
const DASHED = new RegExp(
  `^(?<ft>\\d+)\\s*-\\s*(?<inch>${NUMBER})(?:\\s+(?<frac>${FRACTION}))?\\s*"?$`,
);
const BARE_FRACTION = new RegExp(`^(?:(?<whole>\\d+)\\s+)?(?<frac>${FRACTION})$`);
const FEET_AND_INCHES = new RegExp(
  `^(?:(?<ft>${NUMBER})\\s*(?:'|ft|feet|foot)\\s*-?\\s*)?(?:(?<inch>${NUMBER})(?:[\\s-]+(?<frac>${FRACTION}))?|(?<only>${FRACTION}))?\\s*(?<mark>"|in|inches|inch)?$`,
);

const number = (text: string | undefined) => (text ? Number(text.replace(',', '.')) : 0);
const fraction = (text: string | undefined) => {
  if (!text) return 0;
  const [top, bottom] = text.split('/').map(Number);
  return (top ?? 0) / (bottom ?? 0);
};

/** The length in metres, or null when the text is no length. */
export function parseLengthM(typed: string, unit: LengthUnit): number | null {
  let text = typed.trim().toLowerCase();
  text = text.replaceAll('′', "'").replaceAll('″', '"').replaceAll("''", '"');
  text = text.replaceAll('’', "'").replaceAll('”', '"').replaceAll('−', '-');
  const sign = text.startsWith('-') ? -1 : 1;
  text = text.replace(/^[-+]/, '').trim();
  const value = magnitudeM(text, unit);
  return value === null || !Number.isFinite(value) ? null : sign * value;
}

function magnitudeM(text: string, unit: LengthUnit): number | null {
  const metric = METRIC.exec(text)?.groups;
  if (metric)
    return number(metric.n) * { mm: 0.001, cm: 0.01, m: 1 }[metric.u as 'mm' | 'cm' | 'm'];
  if (BARE.test(text)) return number(text) * (unit === 'ft' ? M_PER_FT : 1);
  const dashed = DASHED.exec(text)?.groups;
  if (dashed) {
    return number(dashed.ft) * M_PER_FT + (number(dashed.inch) + fraction(dashed.frac)) * M_PER_IN;
  }
  const bare = unit === 'ft' ? BARE_FRACTION.exec(text)?.groups : undefined;
  if (bare) return (number(bare.whole) + fraction(bare.frac)) * M_PER_IN;
  const found = FEET_AND_INCHES.exec(text)?.groups;
  if (!found) return null;
  const hasInches = Boolean(found.inch ?? found.only);
  if (!found.ft && !(hasInches && found.mark)) return null;
  if (!hasInches && found.mark) return null;
  const inches = number(found.inch) + fraction(found.frac ?? found.only);
  return number(found.ft) * M_PER_FT + inches * M_PER_IN;
}

/** So many parts of an inch, whole and the rest: `11 7/8`. */
function inchesOf(parts: number, of: number): string {
  let [top, bottom] = [parts % of, of];
  while (top > 0 && top % 2 === 0) [top, bottom] = [top / 2, bottom / 2];
  const [whole, rest] = [Math.floor(parts / of) || '', top > 0 ? `${top}/${bottom}` : ''];
  return [whole, rest].filter(Boolean).join(' ') || '0';
}

/** The length as a carpenter writes it: `12.19 m` or `39' 11 7/8"`. */
export function formatLength(lengthM: number, unit: LengthUnit): string {
  if (unit === 'm')
    return `${lengthM.toFixed(2)} m`.replace(/^-(?=.*[1-9])/, '−').replace(/^-/, '');
  return feetAndInches(lengthM, 8);
}

/** To the nearest of so many parts of an inch. */
function feetAndInches(lengthM: number, of: number): string {
  const parts = Math.round((Math.abs(lengthM) / M_PER_IN) * of);
  const sign = lengthM < 0 && parts > 0 ? '−' : '';
  const feet = Math.floor(parts / (12 * of));
  const whole = inchesOf(parts % (12 * of), of);
  return feet ? `${sign}${feet}' ${whole}"` : `${sign}${whole}"`;
}

/** What a tape is held to: millimetres, or feet and inches to the sixteenth. */
export const formatTape = (lengthM: number, unit: LengthUnit) =>
  unit === 'm' ? `${Math.round(lengthM * 1000)} mm`.replace('-', '−') : feetAndInches(lengthM, 16);

/** What was understood, in both unit systems, the job's own first. */
export function echoOf(typed: string, unit: LengthUnit): string {
  const lengthM = parseLengthM(typed, unit);
  if (lengthM === null) return 'not a length yet';
  const other = unit === 'm' ? 'ft' : 'm';
  return `${formatLength(lengthM, unit)} = ${formatLength(lengthM, other)}`;
}

/** The same, never less: up to the next centimetre or eighth of an inch. */
export function formatAtLeast(lengthM: number, unit: LengthUnit): string {
  const stepM = unit === 'ft' ? M_PER_IN / 8 : 0.01;
  return formatLength(Math.ceil(lengthM / stepM) * stepM, unit);
}

/** A few millimetres, never more than there are; in feet jobs inches to the sixteenth. */
export const formatSpare = (lengthM: number, unit: LengthUnit) =>
  small(Math.abs(lengthM), unit, (parts) => Math.floor(parts + 1e-6));

/** A few millimetres, rounded up; in feet jobs inches to the sixteenth: `3 mm`, `1/8"`. */
export const formatSmall = (lengthM: number, unit: LengthUnit) =>
  small(Math.abs(lengthM), unit, (parts) => Math.ceil(parts - 1e-6));

const small = (lengthM: number, unit: LengthUnit, round: (parts: number) => number) =>
  unit === 'm'
    ? `${round(lengthM * 1000)} mm`
    : `${inchesOf(round((lengthM / M_PER_IN) * 16), 16)}"`;
