import type { Circuits } from '../plan/circuits';
import type { ComponentDocument } from '../plan/schema';

type Selector = Extract<ComponentDocument, { kind: 'selector' }>;

/** How a part can stand that somebody or something moves in use. */
export type Position =
  | { readonly kind: 'valve'; readonly open: boolean }
  | { readonly kind: 'coupler'; readonly joined: boolean }
  | { readonly kind: 'pump'; readonly running: boolean }
  | { readonly kind: 'selector'; readonly position: Selector['position'] };

/** Of parts that stand otherwise than drawn, by id. */
export type Positions = Readonly<Record<string, Position>>;

/**
 * The circuits, or the plan that they are of, with valves, couplers, pumps and selectors as they stand; the very same
 * where all stand as drawn.
 */
export function withPositions<C extends Pick<Circuits, 'components'>>(circuits: C, positions: Positions): C {
  const components = circuits.components.map((part) => stood(part, positions[part.id]));
  return components.every((part, c) => part === circuits.components[c]) ? circuits : { ...circuits, components };
}

/** A part as it stands. A position that is of another kind of part is none of this one's. */
function stood(part: ComponentDocument, position: Position | undefined): ComponentDocument {
  if (position?.kind !== part.kind) return part;
  const same = Object.entries(position).every(([key, value]) => part[key as keyof typeof part] === value);
  return same ? part : ({ ...part, ...position } as ComponentDocument);
}

/** Every pump of the circuits at rest, all else where it stands. */
export const pumpsStopped = (positions: Positions, { components }: Pick<Circuits, 'components'>): Positions => ({
  ...positions,
  ...Object.fromEntries(
    components.flatMap(({ id, kind }) => (kind === 'pump' ? [[id, { kind, running: false } as const]] : [])),
  ),
});
