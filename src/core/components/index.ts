import type { InferType } from 'yup';
import { byKind, keys } from '../schema/tools';
import { checkValve } from './checkValve';
import type { ComponentKindOf, EndName } from './component';
import { coolingSystem } from './coolingSystem';
import { coupler } from './coupler';
import { crankcase } from './crankcase';
import { cross } from './cross';
import { damper } from './damper';
import { filter } from './filter';
import { fitting } from './fitting';
import { floatValve } from './floatValve';
import { meter } from './meter';
import { orifice } from './orifice';
import { outlet } from './outlet';
import { pump } from './pump';
import { receiver } from './receiver';
import { regulator } from './regulator';
import { reliefValve } from './reliefValve';
import { selector } from './selector';
import { tee } from './tee';
import { vacuumBreaker } from './vacuumBreaker';
import { valve } from './valve';

/** Every kind of part that stands in a line, in the order in which they are offered. */
export const COMPONENTS = {
  filter,
  pump,
  valve,
  selector,
  'check-valve': checkValve,
  'relief-valve': reliefValve,
  regulator,
  'float-valve': floatValve,
  'vacuum-breaker': vacuumBreaker,
  tee,
  cross,
  coupler,
  meter,
  damper,
  orifice,
  fitting,
  outlet,
  crankcase,
  'cooling-system': coolingSystem,
  receiver,
} as const;
export type ComponentKind = keyof typeof COMPONENTS;
export const COMPONENT_KINDS = keys(COMPONENTS);

type Schemas = { readonly [K in ComponentKind]: (typeof COMPONENTS)[K]['schema'] };
export const component = byKind(
  Object.fromEntries(COMPONENT_KINDS.map((kind) => [kind, COMPONENTS[kind].schema])) as Schemas,
);
export type ComponentDocument = InferType<typeof component>;

/** What there is to say of a part's kind, for parts of any. */
export const kindOf = ({ kind }: Pick<ComponentDocument, 'kind'>): ComponentKindOf<ComponentDocument> =>
  COMPONENTS[kind] as unknown as ComponentKindOf<ComponentDocument>;

/** What a circuit ends or begins in, in the order offered. */
export const END_POINTS = COMPONENT_KINDS.filter((kind) => kindOf({ kind }).isEndPoint);

/** Ends that a part of a kind may have. */
export const endsOfKind = (kind: ComponentKind): readonly EndName[] =>
  keys(COMPONENTS[kind].ends as Readonly<Record<EndName, string>>);

/** Ends that a part has as it is made. */
export const endsOfComponent = (part: ComponentDocument): readonly EndName[] =>
  kindOf(part).endsAsMade?.(part) ?? endsOfKind(part.kind);

/** True of what somebody has shut: a valve, a selector, a parted coupler. */
export const isShutOff = (part: ComponentDocument): boolean => kindOf(part).isShut?.(part) ?? false;

/**
 * Ends that are joined to one end inside a part as it stands. Straight through comes first.
 */
export function joinedEnds(part: ComponentDocument, end: EndName): readonly EndName[] {
  const pairs = kindOf(part).joins?.(part);
  return pairs
    ? pairs.flatMap(([a, b]) => (a === end ? [b] : b === end ? [a] : []))
    : endsOfComponent(part).filter((each) => each !== end);
}

/** True of a part that is meant to stand in the tank, on a module. */
export const isInTank = (part: ComponentDocument): boolean =>
  part.kind === 'pump' ? part.type === 'in-tank' : 'inTank' in part && part.inTank === true;

/** How a part stands that is moved in use, in a word or two; empty of others. */
export const standsAs = (part: ComponentDocument): string => kindOf(part).moved?.word(part) ?? '';

export {
  drivesOf,
  driveRatio,
  isElectric,
  loopResistance_ohm,
  pumpCurrent_A,
  pumpPoints,
  PUMP_TYPES,
  strokeOf,
  voltsAtPump,
  wireResistance_ohm,
  type PumpDocument,
} from './pump';
export { OPEN_PLACES } from './outlet';
export { FILTER_KINDS } from './filter';
export { SELECTED } from './selector';
export {
  END_NAMES,
  joinKeys,
  madeEnd,
  MIDDLE,
  type Choice,
  type Draining,
  type EndName,
  type EndPair,
  type Hydraulics,
  type PartLink,
} from './component';
