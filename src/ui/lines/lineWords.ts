import type { ComponentDocument, ComponentKind, LineDocument, RunStep, SystemDocument } from '@/core/document';

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

export const KIND_WORDS: Readonly<Record<ComponentKind, string>> = {
  filter: 'filter or separator',
  pump: 'pump',
  valve: 'shut-off valve',
  selector: 'selector valve',
  'check-valve': 'check or anti-siphon valve',
  'relief-valve': 'relief valve',
  regulator: 'pressure regulator',
  'float-valve': 'float valve',
  'vacuum-breaker': 'vacuum breaker',
  tee: 'tee',
  cross: 'cross',
  coupler: 'dry-break coupler',
  meter: 'meter',
  damper: 'pulsation damper',
  orifice: 'restrictor',
  fitting: 'elbow, banjo or other fitting',
  outlet: 'open end',
};

export const PUMP_WORDS: Readonly<Record<Extract<ComponentDocument, { kind: 'pump' }>['type'], string>> = {
  inline: 'inline, electric',
  'in-tank': 'in the tank',
  transfer: 'transfer',
  solenoid: 'solenoid or dosing',
  pulse: 'by intake pulse',
  hand: 'by hand',
  siphon: 'siphon bulb',
};

export const FILTER_WORDS: Readonly<Record<Extract<ComponentDocument, { kind: 'filter' }>['does'], string>> = {
  filter: 'filters',
  separator: 'filters and parts off water',
  strainer: 'strains',
};

export const SELECTED_WORDS: Readonly<Record<Extract<ComponentDocument, { kind: 'selector' }>['position'], string>> = {
  'in-out': 'first end to common end',
  'side-out': 'second end to common end',
  'in-side': 'first end to second end',
  all: 'both to common end',
  shut: 'shut',
};

/** What stands after a part's name in a run, in a word or two. */
export function stateWords(part: ComponentDocument): string {
  switch (part.kind) {
    case 'valve':
      return part.open ? 'open' : 'SHUT';
    case 'coupler':
      return part.joined ? 'joined' : 'PARTED';
    case 'selector':
      return SELECTED_WORDS[part.position];
    case 'pump':
      return part.running ? 'runs' : 'stands still';
    default:
      return '';
  }
}

/** The line of a step, where it is one. */
export const lineOfStep = (system: SystemDocument, step: RunStep): LineDocument | undefined =>
  step.kind === 'line' ? system.lines.find(({ id }) => id === step.id) : undefined;
