import type { EventKind, Played } from '@/core/answers';
import { clockText, formatQuantity, type Reader, type Role } from '@/core/units';

const ENDS: Partial<Readonly<Record<EventKind, string>>> = {
  'clicks-off': 'clicks off',
  poured: 'all is in',
  'neck-full': 'stands full',
};

/** What a course comes to in figures, each with what it is of: as they are laid beside those of another. */
export function figuresOf({ tally, verdict }: Played, reader: Reader): readonly (readonly [string, string])[] {
  const text = (value: number, role: Role): string => formatQuantity(value, role, { reader }).text;
  const { tanks, pours, spilt, consumers } = tally;
  return [
    ...pours.flatMap(({ name, ends, t_s, began_s, volume_m3 }): (readonly [string, string])[] => [
      [`Nozzle in ${name}`, `${ENDS[ends] ?? ends} after ${clockText(t_s - began_s)}`],
      [`In the tank then, ${name}`, text(volume_m3, 'tankVolume')],
    ]),
    ...spilt.map(({ name, volume_m3 }) => [`Comes out by ${name}`, text(volume_m3, 'tankVolume')] as const),
    ...consumers.flatMap(({ name, burnt_m3, starves_s }): (readonly [string, string])[] =>
      burnt_m3 === 0 && starves_s === undefined
        ? []
        : [[`${name} gets all it needs`, starves_s === undefined ? 'while it runs' : `for ${clockText(starves_s)}`]],
    ),
    ...tanks.flatMap(({ name, most_Pa, least_Pa, atEnd_m3 }): (readonly [string, string])[] => [
      [`${name}: most pressure`, text(most_Pa.value, 'pressure')],
      [`${name}: least pressure`, text(least_Pa.value, 'pressure')],
      [`${name}: at the end`, text(atEnd_m3, 'tankVolume')],
    ]),
    ['Grave findings', String(verdict.filter(({ severity }) => severity === 'stop').length)],
  ];
}
