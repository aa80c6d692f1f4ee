'use client';

import { Box } from '@chakra-ui/react';
import { Chart, Legend, LinearScale, LineController, LineElement, PointElement, Tooltip, type ChartOptions } from 'chart.js';
import { useTheme } from 'next-themes';
import { useEffect, useState } from 'react';
import { Line } from 'react-chartjs-2';

Chart.register(LineController, LineElement, PointElement, LinearScale, Tooltip, Legend);
Chart.defaults.font.family = '"Atkinson Hyperlegible Next Variable", sans-serif';
Chart.defaults.font.size = 14;

export type Curve = {
  readonly label: string;
  readonly points: readonly { readonly x: number; readonly y: number }[];
  readonly color: 'accent' | 'fuelEdge' | 'stop' | 'soft' | 'ink' | 'good';
  /** Curves are told apart by dash as well as colour. */
  readonly dash?: readonly number[];
  /** Drawn as single marks. */
  readonly marks?: 'circle' | 'triangle' | 'rectRot' | 'crossRot';
};

type Props = { readonly curves: readonly Curve[]; readonly x: string; readonly y: string; readonly summary: string; readonly height?: string; readonly yMin?: number; readonly yMax?: number };

const TOKENS: Readonly<Record<Curve['color'], string>> = { accent: 'accent', fuelEdge: 'fuel-edge', stop: 'stop', soft: 'soft', ink: 'ink', good: 'good' };
const token = (name: string): string => (typeof document === 'undefined' ? '#888' : getComputedStyle(document.documentElement).getPropertyValue(`--chakra-colors-${name}`).trim() || '#888');

/** Colours follow the theme, which the canvas cannot do by itself. */
function useThemeKey(): string {
  const { resolvedTheme } = useTheme();
  const [key, setKey] = useState('');
  useEffect(() => setKey(resolvedTheme ?? ''), [resolvedTheme]);
  return key;
}

/** A line chart with plain axes; its summary says in words what it shows. */
export function LineChart({ curves, x, y, summary, height = '280px', yMin, yMax }: Props) {
  const theme = useThemeKey();
  const axis = (title: string, min?: number, max?: number) => ({
    type: 'linear' as const, title: { display: true, text: title, color: token('soft') }, grid: { color: token('rule') }, ticks: { color: token('soft'), maxTicksLimit: 8 },
    ...(min === undefined ? {} : { min }), ...(max === undefined ? {} : { max }),
  });
  const options: ChartOptions<'line'> = {
    animation: false, maintainAspectRatio: false, responsive: true, parsing: false, interaction: { mode: 'nearest', intersect: false, axis: 'x' },
    scales: { x: axis(x), y: axis(y, yMin, yMax) },
    plugins: { legend: { position: 'bottom', labels: { usePointStyle: false, boxWidth: 30, boxHeight: 2, color: token('ink') } }, tooltip: { callbacks: { title: () => '' } } },
  };
  const data = {
    datasets: curves.map((curve) => ({
      label: curve.label, data: [...curve.points], borderColor: token(TOKENS[curve.color]), backgroundColor: token(TOKENS[curve.color]), borderWidth: 2.5, borderDash: [...(curve.dash ?? [])],
      pointRadius: curve.marks ? 8 : 0, pointStyle: curve.marks ?? 'circle', showLine: !curve.marks,
    })),
  };
  return (
    <Box>
      <Box height={height} position="relative"><Line key={theme} options={options} data={data} role="img" aria-label={summary} /></Box>
      <Box fontSize="sm" color="soft" mt="1">{summary}</Box>
    </Box>
  );
}
