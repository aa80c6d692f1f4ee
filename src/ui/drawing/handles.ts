import { senderKind } from '@/core/senders';
import type { Path, SystemDocument } from '@/core/plan';
import type { TankDrawing } from '@/core/answers';

/** Something in the drawing that can be dragged: a point, and what moving it writes. */
export type Handle = {
  readonly id: string;
  readonly label: string;
  readonly at: readonly [number, number, number];
  /** Which value of the document each direction changes, and by what sign. */
  readonly moves: Readonly<
    Partial<
      Record<
        'x' | 'y' | 'z',
        { readonly path: Path; readonly sign: 1 | -1; readonly min: number; readonly max: number }
      >
    >
  >;
};

/** Ports move over their face; pickups and senders move with their port, and up and down. */
export function handlesFor(drawing: TankDrawing, system: SystemDocument, t: number): Handle[] {
  const tank = system.tanks[t]!;
  const spans = drawing.bounds;
  const portMoves = (portId: string): Handle['moves'] => {
    const p = tank.ports.findIndex((port) => port.id === portId);
    const port = tank.ports[p];
    if (!port) return {};
    const axis = (key: 'x' | 'y' | 'z', index: 0 | 1 | 2) =>
      port[`${key}_m`]
        ? {
            [key]: {
              path: ['tanks', t, 'ports', p, `${key}_m`],
              sign: 1 as const,
              min: spans.min[index],
              max: spans.max[index],
            },
          }
        : {};
    return { ...axis('x', 0), ...axis('y', 1), ...axis('z', 2) };
  };
  const hanging = new Set([...tank.pickups.map((pickup) => pickup.port), ...tank.senders.map((sender) => sender.port)]);
  return [
    ...drawing.ports
      .filter((port) => !hanging.has(port.id))
      .map((port) => ({ id: port.id, label: port.name, at: port.at, moves: portMoves(port.id) })),
    ...drawing.pickups.map((pickup): Handle => {
      const p = tank.pickups.findIndex((candidate) => candidate.id === pickup.id);
      const rises = tank.pickups[p]!.kind !== 'bottom-outlet';
      return {
        id: pickup.id,
        label: pickup.name,
        at: pickup.inlet,
        moves: {
          ...portMoves(tank.pickups[p]!.port),
          ...(rises
            ? {
                z: { path: ['tanks', t, 'pickups', p, 'heightOffFloor_m'], sign: 1, min: 0, max: spans.max[2] - 0.005 },
              }
            : {}),
        },
      };
    }),
    ...drawing.senders.map((sender): Handle => {
      const s = tank.senders.findIndex((candidate) => candidate.id === sender.id);
      const { handle } = senderKind(tank.senders[s]!);
      return {
        id: sender.id,
        label: `${tank.senders[s]!.name}, ${handle.word}`,
        at: sender.from,
        moves: {
          ...portMoves(tank.senders[s]!.port),
          ...(handle.depth
            ? { z: { path: ['tanks', t, 'senders', s, handle.depth], sign: -1, min: 0, max: spans.max[2] } }
            : {}),
        },
      };
    }),
  ];
}
