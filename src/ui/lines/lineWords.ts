import type { LineDocument, RunStep, SystemDocument } from '@/core/plan';

export const PURPOSE_WORDS: Readonly<Record<LineDocument['purpose'], string>> = {
  feed: 'feed',
  return: 'return',
  transfer: 'transfer',
  fill: 'fill',
  vent: 'vent',
  overflow: 'overflow',
};
export const LINE_KIND_WORDS: Readonly<Record<LineDocument['kind'], string>> = {
  hose: 'hose',
  tube: 'hard tube',
  pipe: 'pipe',
  direct: 'none: screwed together',
};

/** The line of a step, where it is one. */
export const lineOfStep = (system: SystemDocument, step: RunStep): LineDocument | undefined =>
  step.kind === 'line' ? system.lines.find(({ id }) => id === step.id) : undefined;
