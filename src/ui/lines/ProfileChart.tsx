'use client';

import type { RunProfile } from '@/core/answers';
import { formatQuantity } from '@/core/units';
import { axisOf } from '../charts/axes';
import { LineChart, type Curve } from '../charts/LineChart';
import { useReader } from '../state/reader';

const LEAST_ROOM_M = 0.8;
const ROOM = 1.5;

/** The profile of a run: where it goes up and down, the pressure line over it, and where the fuel would boil. */
export function ProfileChart({ profile }: { readonly profile: RunProfile }) {
  const reader = useReader();
  const axis = axisOf('run', reader);
  const text = (value: number, role: 'run' | 'pressure'): string => formatQuantity(value, role, { reader }).text;
  const at = (along_m: number, height_m: number) => ({ x: axis.value(along_m), y: axis.value(height_m) });
  const known = profile.points.filter(({ gauge_Pa }) => gauge_Pa !== undefined);
  const length = profile.points.at(-1)?.along_m ?? 0;
  const boiling = profile.nearestBoiling;
  // The line boils where it stands higher than the pressure line with the air's own pressure, less the fuel's, on top.
  const boilingLine = known.map(({ along_m, height_m, gauge_Pa }) =>
    at(along_m, height_m + gauge_Pa! * profile.headPerPa + profile.boilingHead_m),
  );
  const tops = profile.points.map(
    ({ height_m, gauge_Pa }) => height_m + Math.max(0, (gauge_Pa ?? 0) * profile.headPerPa),
  );
  const nearBoiling = boilingLine.some(({ y }) => y < axis.value(Math.max(...tops) + 4));
  const heights = [...profile.points, ...profile.surfaces].map(({ height_m }) => height_m);
  const span = Math.max(...heights) - Math.min(...heights);
  // A pump lifts the pressure line by metres: the line itself must stay to be seen.
  const ceiling = Math.max(...heights) + Math.max(LEAST_ROOM_M, ROOM * span);
  const leaves = known.some(({ height_m, gauge_Pa }) => height_m + gauge_Pa! * profile.headPerPa > ceiling);
  const curves: Curve[] = [
    { label: 'the line', color: 'ink', points: profile.points.map(({ along_m, height_m }) => at(along_m, height_m)) },
    ...(known.length > 0
      ? [
          {
            label: 'pressure line',
            color: 'accent' as const,
            dash: [9, 5],
            points: known.map(({ along_m, height_m, gauge_Pa }) =>
              at(along_m, height_m + gauge_Pa! * profile.headPerPa),
            ),
          },
        ]
      : []),
    ...(nearBoiling
      ? [{ label: 'boils where the line stands above this', color: 'stop' as const, dash: [3, 4], points: boilingLine }]
      : []),
    ...profile.surfaces.map(({ name, height_m }): Curve => ({
      label: `level in ${name}`,
      color: 'fuelEdge',
      dash: [14, 4],
      points: [at(0, height_m), at(length, height_m)],
    })),
    {
      label: 'parts',
      color: 'ink',
      marks: 'rectRot',
      points: profile.points
        .filter(({ part }) => part !== undefined)
        .map(({ along_m, height_m }) => at(along_m, height_m)),
    },
  ];
  const summary = [
    profile.lowest && profile.highest
      ? `From its lowest point to its highest it rises ${text(profile.highest.height_m - profile.lowest.height_m, 'run')}; the lowest is at ${profile.lowest.part ?? profile.lowest.line ?? 'its end'}.`
      : '',
    boiling?.margin_Pa === undefined
      ? ''
      : boiling.margin_Pa < 0
        ? `The fuel boils at ${boiling.part ?? boiling.line ?? 'its end'}: ${text(-boiling.margin_Pa, 'pressure')} is missing.`
        : `Nearest to boiling at ${boiling.part ?? boiling.line ?? 'its end'}, with ${text(boiling.margin_Pa, 'pressure')} in hand.`,
    leaves ? 'Behind the pump the pressure line leaves the picture; its values stand in the list.' : '',
  ]
    .filter(Boolean)
    .join(' ');
  return (
    <LineChart
      x={`along the run, ${axis.symbol}`}
      y={`height, ${axis.symbol}`}
      height="260px"
      {...(leaves ? { yMax: axis.value(ceiling) } : {})}
      curves={curves}
      summary={summary}
    />
  );
}
