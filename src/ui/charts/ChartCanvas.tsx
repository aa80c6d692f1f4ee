'use client';

import {
  Chart,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
  type ChartOptions,
  type Plugin,
  type Scale,
} from 'chart.js';
import { useTheme } from 'next-themes';
import { memo } from 'react';
import { Line } from 'react-chartjs-2';
import { useMounted } from '../parts/useMounted';
import { TOKENS, type ChartProps } from './curves';

Chart.register(LineController, LineElement, PointElement, LinearScale, Tooltip);
Chart.defaults.font.family = '"Atkinson Hyperlegible Next Variable", sans-serif';
Chart.defaults.font.size = 14;

/** What figures and their unit take beside a chart that is one of several. */
const AXIS_PX = 76;

const token = (name: string): string =>
  typeof document === 'undefined'
    ? '#888'
    : getComputedStyle(document.documentElement).getPropertyValue(`--chakra-colors-${name}`).trim() || '#888';

/** Colours follow the theme, which the canvas cannot do by itself. */
function useThemeKey(): string {
  const { resolvedTheme } = useTheme();
  return useMounted() ? (resolvedTheme ?? '') : '';
}

/** Draws again only where what it shows is another. */
export const ChartCanvas = memo(function ChartCanvas({
  curves,
  x,
  y,
  yMin,
  yMax,
  xSpan,
  onArea,
  summary,
}: Omit<ChartProps, 'height'>) {
  const theme = useThemeKey();
  const axis = (title: string, min?: number, max?: number) => ({
    type: 'linear' as const,
    title: { display: title !== '', text: title, color: token('soft') },
    grid: { color: token('rule') },
    ticks: { color: token('soft'), maxTicksLimit: 8, ...(max === undefined ? {} : { includeBounds: false }) },
    ...(min === undefined ? {} : { min }),
    ...(max === undefined ? {} : { max }),
  });
  const options: ChartOptions<'line'> = {
    animation: false,
    maintainAspectRatio: false,
    responsive: true,
    parsing: false,
    interaction: { mode: 'nearest', intersect: false, axis: 'x' },
    scales: {
      x: axis(x, ...(xSpan ?? [])),
      // Charts that stand over one another begin at one edge.
      y: { ...axis(y, yMin, yMax), ...(onArea ? { afterFit: (scale: Scale) => void (scale.width = AXIS_PX) } : {}) },
    },
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
  const place: Plugin<'line'>[] = onArea
    ? [
        {
          id: 'area',
          afterLayout: ({ chartArea: { left, right, top, bottom } }) => onArea({ left, right, top, bottom }),
        },
      ]
    : [];
  return <Line key={theme} options={options} data={data} plugins={place} role="img" aria-label={summary} />;
});
