const FORM = /^(\d{4})-(\d{2})-(\d{2})(?:[T ](\d{2}):(\d{2})(?::(\d{2}(?:\.\d+)?))?\s*(Z|[+-]\d{2}:?\d{2})?)?$/i;
const DAY_S = 86400;

/**
 * Seconds since 1970 of a date with or without a time, as ISO 8601 writes it;
 * without a zone it counts as universal. Nothing where it is no date.
 * @source days of the proleptic Gregorian calendar: H. Hinnant, "chrono-compatible low-level date algorithms" (public
 * domain)
 */
export function isoSeconds(text: string): number | undefined {
  const match = FORM.exec(text.trim());
  if (!match) return undefined;
  const [year, month, day, hour, minute, second] = match.slice(1, 7).map((part) => Number(part ?? 0)) as [
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  if (month < 1 || month > 12 || day < 1 || day > daysIn(year, month) || hour > 23 || minute > 59 || second >= 60)
    return undefined;
  const zone = match[7];
  const shift =
    zone === undefined || /z/i.test(zone)
      ? 0
      : Number(`${zone[0]}1`) * (Number(zone.slice(1, 3)) * 60 + Number(zone.slice(-2))) * 60;
  return daysFrom1970(year, month, day) * DAY_S + hour * 3600 + minute * 60 + second - shift;
}

const isLeap = (year: number): boolean => (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;
const daysIn = (year: number, month: number): number =>
  month === 2 ? (isLeap(year) ? 29 : 28) : [4, 6, 9, 11].includes(month) ? 30 : 31;

function daysFrom1970(year: number, month: number, day: number): number {
  const y = month <= 2 ? year - 1 : year;
  const era = Math.floor(y / 400);
  const ofEra = y - era * 400;
  const ofYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + day - 1;
  return era * 146097 + ofEra * 365 + Math.floor(ofEra / 4) - Math.floor(ofEra / 100) + ofYear - 719468;
}
