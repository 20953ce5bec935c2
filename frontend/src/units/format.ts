/** Numbers for people: grouped by spaces, true minus, no false digits. */

// Making one takes longer than all it formats in a view.
const formats = new Map<number, Intl.NumberFormat>();

function formatOf(places: number): Intl.NumberFormat {
  const kept = formats.get(places);
  if (kept) return kept;
  const digits = { minimumFractionDigits: places, maximumFractionDigits: places };
  const made = new Intl.NumberFormat('en-US', digits);
  formats.set(places, made);
  return made;
}

export function figure(value: number, places = 0): string {
  const text = formatOf(places).format(value);
  // Next to nothing is nothing, on neither side of it.
  const minus = /[1-9]/.test(text) ? '−' : '';
  return text.replaceAll(',', ' ').replace('-', minus);
}

/** A share lost, per cent to three digits: what decides between designs is often the third. */
export function lossShare(frac: number): string {
  const percent = Math.abs(frac) * 100;
  const places = percent >= 9.995 ? 1 : percent >= 0.9995 ? 2 : 3;
  const text = figure(percent, places);
  return Number(text) === 0 ? '0 %' : `${text} %`;
}

/** What something takes, with a minus; nothing is nothing. */
export function taken(value: number, places = 0): string {
  return signed(-Math.abs(value), places) || '0';
}

/** Money as it is typed and shown: whole cents only where they matter. */
export function money(cents: number | null, currency = ''): string {
  if (cents === null) return '';
  const whole = Math.abs(cents % 100) < 0.005 && Math.abs(cents) >= 100_00;
  const text = figure(Math.abs(cents) / 100, whole ? 0 : 2);
  return `${cents < 0 && /[1-9]/.test(text) ? '−' : ''}${currency}${text}`;
}

/** Money in a column: every figure with its cents, so that they stand under each other. */
export const cash = (cents: number | null, currency = '') =>
  cents === null ? '' : `${cents < 0 ? '−' : ''}${currency}${figure(Math.abs(cents) / 100, 2)}`;

/** A yearly energy to the nearest 10 kWh. */
export const yearlyKwh = (kwh: number) => `${figure(Math.round(kwh / 10) * 10)} kWh`;

/** A difference with its sign; an empty text when it rounds to nothing. */
export function signed(value: number, places = 0): string {
  const text = figure(Math.abs(value), places);
  if (Number(text.replaceAll(' ', '')) === 0) return '';
  return value > 0 ? `+${text}` : `−${text}`;
}

/** `30 Nov 2026`. */
export const day = (iso: string) =>
  new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' });

export const clock = (iso: string) =>
  new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });

/** `8:05` for a minute of the day. */
export const clockOf = (minute: number) =>
  `${Math.floor(minute / 60)}:${String(minute % 60).padStart(2, '0')}`;

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const DAYS_BEFORE = [0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334];

export { MONTHS };

/** The month, from 0, of a day of the year. */
export const monthOfDay = (dayOfYear: number) =>
  DAYS_BEFORE.findLastIndex((before) => before <= dayOfYear);

/** `15 Apr` for a day of the year counted from 0 in a year without a leap day. */
export function dayName(dayOfYear: number): string {
  const month = monthOfDay(dayOfYear);
  return `${dayOfYear - (DAYS_BEFORE[month] ?? 0) + 1} ${MONTHS[month] ?? ''}`;
}

/** The same words with a capital first. */
export const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
