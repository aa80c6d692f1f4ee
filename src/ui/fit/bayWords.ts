import type { MeasuredBayDocument } from '@/core/plan';
import type { Sides } from '../state/sides';

/** A corner by its number round the outline, as a builder finds it. */
export const cornerName = (
  bay: MeasuredBayDocument,
  { station, corner }: { station: string; corner: number },
  sides: Sides,
): string => {
  const usual =
    bay.sides.length === 4
      ? (bay.axis === 'x'
          ? ['lower starboard', 'lower port', 'upper port', 'upper starboard']
          : ['lower aft', 'lower fore', 'upper fore', 'upper aft'])[corner]
      : `corner ${corner + 1}`;
  return `${sides(usual!)}, ${bay.stations.find(({ id }) => id === station)?.name ?? station}`;
};

/** A reading by the two corners that it was taken between. */
export const measureName = (bay: MeasuredBayDocument, index: number, sides: Sides): string => {
  const { from, to } = bay.measures[index]!;
  return from.station === to.station
    ? `${cornerName(bay, from, sides).split(',')[0]} to ${cornerName(bay, to, sides)}`
    : `${cornerName(bay, from, sides)} to ${cornerName(bay, to, sides)}`;
};
