import { failure, success, type Outcome } from '../outcome';
import {
  IMPERIAL_GALLON_M3,
  parseNumber,
  parseQuantity,
  roleUnit,
  unitBySpelling,
  US_GALLON_M3,
  type Reader,
} from '../units';

const KM_M = 1000;
const MILE_M = 1609.344;
const NAUTICAL_MILE_M = 1852;

/** A consumption as somebody said it: by time, or by distance. */
export type StatedConsumption =
  | { readonly kind: 'time'; readonly flow_m3PerS: number }
  /** Fuel over way: 1 L/100 km is 1e-8 m². */
  | { readonly kind: 'distance'; readonly fuelPerWay_m2: number };

export type ConsumptionCode = 'empty' | 'not-a-consumption' | 'ambiguous-unit';

const DISTANCES_M: Readonly<Record<string, number>> = {
  km: KM_M,
  '100km': 100 * KM_M,
  mi: MILE_M,
  mile: MILE_M,
  miles: MILE_M,
  nmi: NAUTICAL_MILE_M,
  nm: NAUTICAL_MILE_M,
};
const ACCEPTED = 'such as 7 L/h, 2 gal/h, 8.5 L/100 km, 12 km/L, 28 mpg or 1.4 nmi/L';

/**
 * Reads a consumption as people say it: volume by the hour, volume for a distance (L/100 km, L/nmi), or distance for a
 * volume (mpg, km/L, nmi/L). A plain gallon, as in mpg, is that of the reader's volumes; where these are in litres it
 * has to be said whose.
 * @source exact factors of the units' definitions
 */
export function readConsumption(text: string, reader: Reader): Outcome<StatedConsumption, ConsumptionCode> {
  const plain = text.trim().toLowerCase();
  if (plain === '') return failure('empty', text, `Enter a consumption, ${ACCEPTED}.`);
  const parts = /^([-+\d.,/ ]*\d)\s*([a-z][\w\s./()]*)?$/.exec(plain.replace(/\s+/g, ' '));
  const number = parts ? parseNumber(parts[1]!) : undefined;
  const unit = (parts?.[2] ?? '').replaceAll(' ', '');
  if (parts && number?.ok && number.value > 0) {
    const distance = byDistance(unit, reader);
    if (distance && !distance.ok) return distance;
    if (distance?.ok) {
      const { metres, volume_m3, isInverse } = distance.value;
      const perWay = volume_m3 / metres;
      return success({ kind: 'distance', fuelPerWay_m2: isInverse ? perWay / number.value : perWay * number.value });
    }
  }
  const flow = parseQuantity(text, { kind: 'flow', unit: roleUnit('burn', reader), reader });
  if (flow.ok && flow.value.si > 0) return success({ kind: 'time', flow_m3PerS: flow.value.si });
  if (!flow.ok && flow.error.code === 'ambiguous-unit') return failure('ambiguous-unit', text, flow.error.detail);
  return failure('not-a-consumption', text, `“${text.trim()}” is no consumption. Enter one ${ACCEPTED}.`);
}

type Ratio = { readonly metres: number; readonly volume_m3: number; readonly isInverse: boolean };

/** What a unit of fuel by way is made of; undefined where it is none. */
function byDistance(unit: string, reader: Reader): Outcome<Ratio, 'ambiguous-unit'> | undefined {
  const mpg = /^(us|uk|imp)?mpg\(?(us|uk|imp)?\)?$/.exec(unit);
  if (mpg) {
    const gallon = gallonOf(mpg[1] ?? mpg[2] ?? '', reader);
    return gallon.ok ? success({ metres: MILE_M, volume_m3: gallon.value, isInverse: true }) : gallon;
  }
  const [first, second, more] = unit.split('/');
  if (first === undefined || second === undefined || more !== undefined) return undefined;
  // “8 L/100” is said for 100 km.
  const away = DISTANCES_M[second === '100' ? '100km' : second];
  const toward = DISTANCES_M[first];
  const volumeWord = away === undefined ? second : first;
  const metres = away ?? toward;
  if (metres === undefined) return undefined;
  const volume = volumeOf(volumeWord, reader);
  if (!volume) return undefined;
  return volume.ok ? success({ metres, volume_m3: volume.value, isInverse: away === undefined }) : volume;
}

function volumeOf(word: string, reader: Reader): Outcome<number, 'ambiguous-unit'> | undefined {
  const gallon = /^(us|uk|imp)?(gal|gallon|gallons)$/.exec(word);
  if (gallon) return gallonOf(gallon[1] ?? '', reader);
  const unit = unitBySpelling('volume', word);
  return unit && success(unit.toSI);
}

function gallonOf(whose: string, reader: Reader): Outcome<number, 'ambiguous-unit'> {
  if (whose === 'us') return success(US_GALLON_M3);
  if (whose !== '') return success(IMPERIAL_GALLON_M3);
  const own = roleUnit('tankVolume', reader);
  if (own === 'us_gal') return success(US_GALLON_M3);
  if (own === 'imp_gal') return success(IMPERIAL_GALLON_M3);
  return failure(
    'ambiguous-unit',
    'gal',
    'A gallon can be the US or the imperial one, which differ by a fifth: say US mpg or imp mpg.',
  );
}

/**
 * What is burned in a time at a speed [m³/s].
 * @param speed_mPerS over 0; not needed where it was said by time
 * @returns undefined where the speed is needed and not known
 */
export function burnOf(stated: StatedConsumption, speed_mPerS: number | undefined): number | undefined {
  if (stated.kind === 'time') return stated.flow_m3PerS;
  return speed_mPerS !== undefined && speed_mPerS > 0 ? stated.fuelPerWay_m2 * speed_mPerS : undefined;
}

/**
 * The share of full load at which so much is burned; undefined where that is under idle or over full load.
 * The inverse of `burnAtDuty_m3PerS`.
 */
export function dutyOfBurn_ratio(burn_m3PerS: number, idle_m3PerS: number, full_m3PerS: number): number | undefined {
  const duty = (burn_m3PerS - idle_m3PerS) / (full_m3PerS - idle_m3PerS);
  return duty >= -1e-9 && duty <= 1 + 1e-9 ? Math.min(1, Math.max(0, duty)) : undefined;
}

/** Fuel by way as it is said where the reader is: a number and its unit. */
export function wayText(fuelPerWay_m2: number, reader: Reader, isAfloat: boolean): string {
  const volume = roleUnit('tankVolume', reader);
  const gallon = volume === 'us_gal' ? US_GALLON_M3 : volume === 'imp_gal' ? IMPERIAL_GALLON_M3 : undefined;
  const digits = (value: number): string => String(Number(value.toPrecision(3)));
  if (isAfloat)
    return gallon
      ? `${digits(gallon / fuelPerWay_m2 / NAUTICAL_MILE_M)} nmi/${volume === 'us_gal' ? 'US' : 'imp'} gal`
      : `${digits(1e-3 / fuelPerWay_m2 / NAUTICAL_MILE_M)} nmi/L`;
  return gallon
    ? `${digits(gallon / fuelPerWay_m2 / MILE_M)} ${volume === 'us_gal' ? 'US' : 'imp'} mpg`
    : `${digits(fuelPerWay_m2 * 1e8)} L/100 km`;
}
