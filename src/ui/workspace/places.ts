import { valuesOf } from '@/core/answers';
import type { Path, SystemDocument } from '@/core/plan';
import { pathWords } from '../measure/pathWords';
import { SHEET_KEYS, type SheetKey } from '../paper/choice';
import { SHEET_LABELS } from '../paper/labels';
import { ACROSS, STAGES, type StageKey } from './stages';
import { tasksOf } from './tasks';

/** Somewhere to go: a stage, a task, a sheet of paper, a thing or a field, by name. */
export type PlaceToGo = {
  readonly id: string;
  readonly label: string;
  /** What kind of place it is, or of what. */ readonly detail: string;
  readonly stage: StageKey;
  readonly path?: Path;
  readonly sheet?: SheetKey;
  readonly task?: string;
};

const stageLabel = (key: StageKey): string => [...STAGES, ...ACROSS].find((stage) => stage.key === key)!.label;

/** The named things of a system, each where it is looked after. */
function namedPlaces(system: SystemDocument): PlaceToGo[] {
  const of = (
    list: readonly { readonly name: string }[],
    at: Path,
    stage: StageKey,
    kind: string,
  ): readonly PlaceToGo[] =>
    list.map(({ name }, i) => ({
      id: [...at, i].join('.'),
      label: name,
      detail: `${kind}, ${stageLabel(stage)}`,
      stage,
      path: [...at, i],
    }));
  return [
    ...of(system.tanks, ['tanks'], 'tank', 'tank'),
    ...system.tanks.flatMap((tank, t) => [
      ...of(tank.ports, ['tanks', t, 'ports'], 'ports', `port of ${tank.name}`),
      ...of(tank.pickups, ['tanks', t, 'pickups'], 'ports', `pickup of ${tank.name}`),
      ...of(tank.senders, ['tanks', t, 'senders'], 'gauge', `sender of ${tank.name}`),
    ]),
    ...of(system.components, ['components'], 'lines', 'part'),
    ...of(system.lines, ['lines'], 'lines', 'line'),
    ...of(system.consumers, ['consumers'], 'lines', 'consumer'),
    ...of(system.fit.obstacles, ['fit', 'obstacles'], 'fit', 'obstacle'),
  ];
}

/** Everywhere that one can go in a system. */
export function placesOf(system: SystemDocument): PlaceToGo[] {
  return [
    ...STAGES.map(({ key, label, question }): PlaceToGo => ({ id: key, label, detail: question, stage: key })),
    ...ACROSS.map(({ key, label }): PlaceToGo => ({ id: key, label, detail: '', stage: key })),
    ...STAGES.flatMap(({ key: stage, label: of }) =>
      tasksOf(stage).map(({ key, label, question }): PlaceToGo => ({
        id: `${stage}-${key}`,
        label,
        detail: `${question}, ${of}`,
        stage,
        task: key,
      })),
    ),
    ...SHEET_KEYS.map((sheet): PlaceToGo => ({
      id: `sheet-${sheet}`,
      label: SHEET_LABELS[sheet],
      detail: 'sheet of paper',
      stage: 'paper',
      sheet,
    })),
    ...namedPlaces(system),
    ...valuesOf(system).map(({ path }): PlaceToGo => {
      const { label, owner, stage } = pathWords(system, path);
      return { id: path.join('.'), label, detail: `${owner}, ${stageLabel(stage)}`, stage, path };
    }),
  ];
}

const MOST = 12;

/** Places whose words have all that was typed in them; names that begin so first, then the shorter ones. */
export function foundPlaces(places: readonly PlaceToGo[], typed: string): readonly PlaceToGo[] {
  const terms = typed.toLowerCase().split(/\s+/).filter(Boolean);
  if (terms.length === 0) return places.slice(0, STAGES.length + ACROSS.length);
  const rank = ({ label, detail }: PlaceToGo): number | undefined => {
    const [name, all] = [label.toLowerCase(), `${label} ${detail}`.toLowerCase()];
    if (!terms.every((term) => all.includes(term))) return undefined;
    const begins = name.startsWith(terms[0]!)
      ? 0
      : name.split(/\s+/).some((word) => word.startsWith(terms[0]!))
        ? 1
        : 2;
    return begins * 1000 + name.length;
  };
  return places
    .flatMap((place) => {
      const at = rank(place);
      return at === undefined ? [] : [{ place, at }];
    })
    .sort((a, b) => a.at - b.at)
    .slice(0, MOST)
    .map(({ place }) => place);
}
