'use client';

import { Box } from '@chakra-ui/react';
import { Chart, LinearScale, LineController, LineElement, PointElement, Tooltip, type ChartOptions } from 'chart.js';
import { useTheme } from 'next-themes';
import { memo } from 'react';
import { Line } from 'react-chartjs-2';
import { useMounted } from '../parts/useMounted';
import { useWhenSeen } from './useWhenSeen';

Chart.register(LineController, LineElement, PointElement, LinearScale, Tooltip);
Chart.defaults.font.family = '"Atkinson Hyperlegible Next Variable", sans-serif';
Chart.defaults.font.size = 14;

export type Curve = {
  /** Stands in the legend; empty for the second of a pair. */
  readonly label: string;
  readonly points: readonly { readonly x: number; readonly y: number }[];
  readonly color: 'accent' | 'fuelEdge' | 'stop' | 'soft' | 'ink' | 'good';
  /** Curves are told apart by dash as well as colour. */
  readonly dash?: readonly number[];
  /** Drawn as single marks. */
  readonly marks?: 'rectRot';
};

type Props = {
  readonly curves: readonly Curve[];
  readonly x: string;
  readonly y: string;
  readonly summary: string;
  readonly height?: string;
  readonly yMin?: number | undefined;
  readonly yMax?: number | undefined;
};

const TOKENS: Readonly<Record<Curve['color'], string>> = {
  accent: 'accent',
  fuelEdge: 'fuel-edge',
  stop: 'stop',
  soft: 'soft',
  ink: 'ink',
  good: 'good',
};
const token = (name: string): string =>
  typeof document === 'undefined'
    ? '#888'
    : getComputedStyle(document.documentElement).getPropertyValue(`--chakra-colors-${name}`).trim() || '#888';

/** Colours follow the theme, which the canvas cannot do by itself. */
function useThemeKey(): string {
  const { resolvedTheme } = useTheme();
  return useMounted() ? (resolvedTheme ?? '') : '';
}

/** A line chart with plain axes; its summary says in words what it shows. */
export function LineChart({ curves, x, y, summary, height = '280px', yMin, yMax }: Props) {
  const { box, drawn } = useWhenSeen({ curves, x, y, yMin, yMax });
  return (
    <Box>
      <Box height={height} position="relative" ref={box}>
        <Canvas {...drawn} summary={summary} />
      </Box>
      <Legend curves={curves} />
      <Box fontSize="sm" color="soft" mt="1">
        {summary}
      </Box>
    </Box>
  );
}

/** Draws again only where what it shows is another. */
const Canvas = memo(function Canvas({ curves, x, y, yMin, yMax, summary }: Omit<Props, 'height'>) {
  const theme = useThemeKey();
  const axis = (title: string, min?: number, max?: number) => ({
    type: 'linear' as const,
    title: { display: true, text: title, color: token('soft') },
    grid: { color: token('rule') },
    ticks: { color: token('soft'), maxTicksLimit: 8 },
    ...(min === undefined ? {} : { min }),
    ...(max === undefined ? {} : { max }),
  });
  const options: ChartOptions<'line'> = {
    animation: false,
    maintainAspectRatio: false,
    responsive: true,
    parsing: false,
    interaction: { mode: 'nearest', intersect: false, axis: 'x' },
    scales: { x: axis(x), y: axis(y, yMin, yMax) },
    plugins: { legend: { display: false }, tooltip: { callbacks: { title: () => '' } } },
  };
  const data = {
    datasets: curves.map((curve) => ({
      label: curve.label,
      data: [...curve.points],
      borderColor: token(TOKENS[curve.color]),
      backgroundColor: token(TOKENS[curve.color]),
      borderWidth: 2.5,
      borderDash: [...(curve.dash ?? [])],
      pointRadius: curve.marks ? 8 : 0,
      pointStyle: curve.marks ?? 'circle',
      showLine: !curve.marks,
    })),
  };
  return <Line key={theme} options={options} data={data} role="img" aria-label={summary} />;
});

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
