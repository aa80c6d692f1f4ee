import type { Stage } from '@/core/rules';

export type StageKey = Stage | 'findings' | 'measure' | 'paper';

/** In the order in which the work is done. */
export const STAGES: readonly { readonly key: StageKey; readonly label: string; readonly question: string }[] = [
  { key: 'fit', label: 'Fit', question: 'Whether it fits, and how it gets in and out' },
  { key: 'tank', label: 'Tank', question: 'What it holds, and what it is made of' },
  { key: 'ports', label: 'Ports', question: 'Holes, pickup and drain: what can be drawn' },
  { key: 'lines', label: 'Lines', question: 'Whether the fuel gets there' },
  { key: 'vents', label: 'Vents & fill', question: 'Whether the air gets in and out' },
  { key: 'gauge', label: 'Gauge', question: 'What the needle will say' },
  { key: 'range', label: 'Range', question: 'How far and how long it goes' },
  { key: 'mounts', label: 'Mounts & weight', question: 'What holds it, and what of that gives first' },
];

export const ACROSS: readonly { readonly key: StageKey; readonly label: string }[] = [
  { key: 'findings', label: 'Findings' },
  { key: 'measure', label: 'Measure next' },
  { key: 'paper', label: 'Paper' },
];

export const isStage = (value: string | null): value is StageKey =>
  [...STAGES, ...ACROSS].some((stage) => stage.key === value);
