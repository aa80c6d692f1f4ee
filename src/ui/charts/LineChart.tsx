'use client';

import { Box } from '@chakra-ui/react';
import { lazy, Suspense, type ComponentType, type ReactNode } from 'react';
import { TOKENS, type ChartProps, type Curve } from './curves';
import { useWhenSeen } from './useWhenSeen';

export type { ChartArea, Curve } from './curves';

/** What draws charts comes after the numbers, and before the server may be out of reach. */
export const loadCharts = () => import('./ChartCanvas');
const ChartCanvas = lazy((): Promise<{ readonly default: ComponentType<Drawn> }> =>
  loadCharts().then(
    ({ ChartCanvas: canvas }) => ({ default: canvas }),
    () => ({ default: NotThere }),
  ),
);
type Drawn = Omit<ChartProps, 'height'>;

/** The page was opened, and the server has gone before what draws charts had come. */
const NotThere = () => (
  <Box role="alert" color="warn" fontWeight="600">
    The chart cannot be drawn: the server is out of reach. Open the page again when it is back.
  </Box>
);

/** A line chart with plain axes; its summary says in words what it shows. */
export function LineChart({
  curves,
  x,
  y,
  summary,
  height = '280px',
  yMin,
  yMax,
  xSpan,
  onArea,
  over,
}: ChartProps & {
  /** Laid over its canvas, which then says its summary to who cannot see it. */ readonly over?: ReactNode;
}) {
  const { box, drawn } = useWhenSeen({ curves, x, y, yMin, yMax, xSpan });
  return (
    <Box>
      <Box height={height} position="relative" ref={box}>
        <Suspense fallback={<Box color="soft">Drawing…</Box>}>
          <ChartCanvas {...drawn} summary={summary} {...(onArea ? { onArea } : {})} />
        </Suspense>
        {over}
      </Box>
      <Legend curves={curves} />
      {over === undefined && (
        <Box fontSize="sm" color="soft" mt="1">
          {summary}
        </Box>
      )}
    </Box>
  );
}

/** Drawn here, since the canvas's own legend does not show dashes. */
function Legend({ curves }: { readonly curves: readonly Curve[] }) {
  return (
    <Box
      display="flex"
      flexWrap="wrap"
      columnGap="5"
      rowGap="1"
      justifyContent="center"
      mt="1"
      fontSize="sm"
      aria-hidden
    >
      {curves
        .filter(({ label }) => label !== '')
        .map((curve) => {
          const stroke = `var(--chakra-colors-${TOKENS[curve.color]})`;
          return (
            <Box key={curve.label} display="flex" alignItems="center" gap="2">
              <svg width="34" height="14" viewBox="0 0 34 14">
                {curve.marks ? (
                  <rect x="12" y="2" width="10" height="10" transform="rotate(45 17 7)" fill={stroke} />
                ) : (
                  <line
                    x1="1"
                    y1="7"
                    x2="33"
                    y2="7"
                    stroke={stroke}
                    strokeWidth="3"
                    strokeDasharray={curve.dash?.join(' ')}
                  />
                )}
              </svg>
              {curve.label}
            </Box>
          );
        })}
    </Box>
  );
}
