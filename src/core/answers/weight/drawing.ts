import { meshBounds, posedMesh, type Point2 } from '../../geometry';
import { outerMesh, placeOf } from '../../model/compileFit';
import { failure, success, type Outcome } from '../../outcome';
import type { Plan, StanceDocument } from '../../plan/schema';
import { VIEW_AXES, type FitDrawing, type FitShape, type FitViewKey } from '../fit/fitDrawing';
import { outlineOf } from '../fit/outline';

type Views = Readonly<Record<FitViewKey, readonly (readonly Point2[])[]>>;
type Shape = Omit<FitShape, 'outline'> & { readonly views: Views };

/** Wheels stand for where they are, not for how large. */
const WHEEL_M = { radius: 0.3, half: 0.1 };
const BALL_M = 0.06;
/** A line is drawn as thin as this. */
const LINE_M = 0.004;
/** Below the lowest tank the ground is drawn where it is not said. */
const UNDER_M = 0.35;

/** The tanks with the axles or the waterline that bear them, from three sides. */
export function standDrawing({
  tanks,
  stance,
}: Pick<Plan, 'tanks' | 'stance'>): Outcome<FitDrawing, 'not-said' | 'bad-shape'> {
  if (!stance) return failure('not-said', 'stance', 'Nothing is said of what the vehicle stands on.');
  const shapes: Shape[] = [];
  let low_m = Infinity;
  for (const tank of tanks) {
    if (tank.elsewhere) continue;
    const outer = outerMesh(tank);
    if (!outer.ok) return failure('bad-shape', tank.name, outer.error.detail);
    const mesh = posedMesh(outer.value, placeOf(tank.mounting));
    low_m = Math.min(low_m, meshBounds(mesh).min[2]);
    const seen = (key: FitViewKey) => outlineOf(mesh, VIEW_AXES[key]);
    shapes.push({
      id: tank.id,
      name: tank.name,
      kind: 'tank',
      views: { side: seen('side'), end: seen('end'), plan: seen('plan') },
    });
  }
  const below = [...wheelShapes(stance, low_m), ...hullShapes(stance)];
  const all = [...below, ...shapes];
  const reach = (k: 0 | 1 | 2): number[] =>
    all.flatMap(({ views }) =>
      (['side', 'end', 'plan'] as const).flatMap((key) => {
        const axis = VIEW_AXES[key].indexOf(k);
        return axis < 0 ? [] : views[key].flatMap((loop) => loop.map((point) => point[axis]!));
      }),
    );
  const view = (key: FitViewKey): FitShape[] => all.map(({ views, ...shape }) => ({ ...shape, outline: views[key] }));
  return success({
    bounds: {
      min: [Math.min(...reach(0)), Math.min(...reach(1)), Math.min(...reach(2))],
      max: [Math.max(...reach(0)), Math.max(...reach(1)), Math.max(...reach(2))],
    },
    views: { side: view('side'), end: view('end'), plan: view('plan') },
  });
}

const around = (x: number, y: number, halfX: number, halfY: number): Point2[] => [
  [x - halfX, y - halfY],
  [x + halfX, y - halfY],
  [x + halfX, y + halfY],
  [x - halfX, y + halfY],
];
const circle = (x: number, y: number, radius: number): Point2[] =>
  Array.from({ length: 32 }, (_, i) => [
    x + radius * Math.cos((i * Math.PI) / 16),
    y + radius * Math.sin((i * Math.PI) / 16),
  ]);

function wheelShapes({ axles = [], hitch, height, middle_m }: StanceDocument, low_m: number): Shape[] {
  if (axles.length === 0) return [];
  const ground = height?.ground_m.value ?? (Number.isFinite(low_m) ? low_m - UNDER_M : 0);
  const middle = middle_m.value;
  const { radius, half } = WHEEL_M;
  const along = [...axles.map(({ x_m }) => x_m.value), ...(hitch ? [hitch.x_m.value] : [])];
  const [aft, fore] = [Math.min(...along) - radius, Math.max(...along) + radius];
  const widest = Math.max(...axles.map(({ track_m }) => track_m.value)) / 2 + half;
  return [
    {
      id: 'ground',
      name: 'Ground',
      kind: 'wall',
      views: {
        side: [around((aft + fore) / 2, ground, (fore - aft) / 2, LINE_M / 2)],
        end: [around(middle, ground, widest + radius, LINE_M / 2)],
        plan: [],
      },
    },
    ...axles.map(({ id, name, x_m, track_m }): Shape => {
      const sides = [middle + track_m.value / 2, middle - track_m.value / 2];
      return {
        id,
        name,
        kind: 'obstacle',
        views: {
          side: [circle(x_m.value, ground + radius, radius)],
          end: sides.map((y) => around(y, ground + radius, half, radius)),
          plan: sides.map((y) => around(x_m.value, y, radius, half)),
        },
      };
    }),
    ...(hitch
      ? [
          {
            id: 'hitch',
            name: 'Coupling',
            kind: 'fixing' as const,
            views: {
              side: [circle(hitch.x_m.value, ground + 1.5 * radius, BALL_M)],
              end: [circle(middle, ground + 1.5 * radius, BALL_M)],
              plan: [circle(hitch.x_m.value, middle, BALL_M)],
            },
          },
        ]
      : []),
  ];
}

function hullShapes({ hull, middle_m }: StanceDocument): Shape[] {
  if (!hull) return [];
  const stations = hull.stations
    .map(({ x_m, beam_m }) => ({ x: x_m.value, half: beam_m.value / 2 }))
    .sort((a, b) => a.x - b.x);
  const middle = middle_m.value;
  const [aft, fore] = [stations[0]!.x, stations.at(-1)!.x];
  const widest = Math.max(...stations.map(({ half }) => half));
  const level = hull.waterline_m.value;
  return [
    {
      id: 'waterline',
      name: 'Waterline',
      kind: 'wall',
      views: {
        side: [around((aft + fore) / 2, level, (fore - aft) / 2, LINE_M / 2)],
        end: [around(middle, level, widest, LINE_M / 2)],
        plan: [
          [
            ...stations.map(({ x, half }): Point2 => [x, middle - half]),
            ...stations.toReversed().map(({ x, half }): Point2 => [x, middle + half]),
          ],
        ],
      },
    },
  ];
}
