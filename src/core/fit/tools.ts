import {
  AT_HOME,
  boxMesh,
  composed,
  posedMesh,
  rodMesh,
  shiftBy,
  turnAbout,
  turned,
  type ClosedMesh,
  type Pose,
  type Surface,
  type Vec3,
} from '../geometry';
import {
  CRANK_DEG,
  GRIP,
  RATCHET,
  RATCHET_SWING_DEG,
  SPANNER_SWING_DEG,
  toolRow,
  type FixedToolKey,
  type SpannerRow,
  type ToolKey,
  type ToolPart,
} from '../reference/reachTools';
import { derived } from '../memo';
import { joinedSurface } from './moves';

/** A tool, with the hand that holds it, as simple solids in its own frame. */
export type Tool = {
  readonly key: ToolKey;
  readonly pieces: readonly ClosedMesh[];
  readonly surface: Surface;
  /** Greatest distance of any of it from its z axis [m]. */
  readonly radius_m: number;
  /** What it must turn about z at one go [rad]; 0 for what does not turn. */
  readonly swing_rad: number;
};

const ROD_SIDES = 12;

const meshOf = (part: ToolPart): ClosedMesh =>
  part.kind === 'rod'
    ? rodMesh(part.from, part.to, part.radius, ROD_SIDES)
    : posedMesh(
        boxMesh(part.to[0] - part.from[0], part.to[1] - part.from[1], part.to[2] - part.from[2]),
        shiftBy(part.from),
      );

function toolOf(key: ToolKey, parts: readonly ToolPart[], swing_deg = 0, rise_deg = 0): Tool {
  const rise = rise_deg === 0 ? AT_HOME : turnAbout([0, 0, 0], [0, -1, 0], (rise_deg * Math.PI) / 180);
  const pieces = parts.map((part, i) => (i === 0 ? meshOf(part) : posedMesh(meshOf(part), rise)));
  const surface = joinedSurface(pieces);
  let radius_m = 0;
  for (let i = 0; i < surface.positions.length; i += 3)
    radius_m = Math.max(radius_m, Math.hypot(surface.positions[i]!, surface.positions[i + 1]!));
  return { key, pieces, surface, radius_m, swing_rad: (swing_deg * Math.PI) / 180 };
}

/** Round all that a tool may take up as it turns about z; never smaller. */
export const sweepOf = derived(({ surface: { positions }, radius_m }: Tool): ClosedMesh => {
  let [low, high] = [Infinity, -Infinity];
  for (let i = 2; i < positions.length; i += 3) {
    low = Math.min(low, positions[i]!);
    high = Math.max(high, positions[i]!);
  }
  return rodMesh([0, 0, low], [0, 0, high], radius_m, SWEEP_SIDES);
});
const SWEEP_SIDES = 24;

const ready = new Map<FixedToolKey, Tool>();

/** A tool of one size. */
export function fixedTool(key: FixedToolKey): Tool {
  const known = ready.get(key) ?? toolOf(key, toolRow(key).parts);
  ready.set(key, known);
  return known;
}

/** A spanner lying across the axis, its middle at the origin: flat, or with its handle rising from the head. */
export const spannerTools = derived(({ length, headDiameter, thickness }: SpannerRow): Tool[] => {
  const half = thickness / 2;
  const parts: ToolPart[] = [
    { kind: 'rod', from: [0, 0, -half], to: [0, 0, half], radius: headDiameter / 2 },
    { kind: 'block', from: [0, -headDiameter / 5, -half], to: [length, headDiameter / 5, half] },
    {
      kind: 'block',
      from: [length - GRIP.along, -GRIP.width / 2, -GRIP.below],
      to: [length, GRIP.width / 2, GRIP.above],
    },
  ];
  return [
    toolOf('ring-spanner', parts, SPANNER_SWING_DEG),
    toolOf('cranked-spanner', parts, SPANNER_SWING_DEG, CRANK_DEG),
  ];
});

/** A socket with its ratchet, standing on the face at the origin; by itself, and on an extension. */
export const socketTools = derived(({ socketDiameter, socketLength }: SpannerRow): Tool[] =>
  (
    [
      ['socket', 0],
      ['long-socket', RATCHET.extension],
    ] as const
  ).map(([key, extension]) => {
    const top = socketLength + extension;
    return toolOf(
      key,
      [
        { kind: 'rod', from: [0, 0, 0.001], to: [0, 0, socketLength], radius: socketDiameter / 2 },
        ...(extension > 0
          ? [
              {
                kind: 'rod' as const,
                from: [0, 0, socketLength] as const,
                to: [0, 0, top] as const,
                radius: RATCHET.extensionDiameter / 2,
              },
            ]
          : []),
        { kind: 'rod', from: [0, 0, top], to: [0, 0, top + RATCHET.headHeight], radius: RATCHET.headDiameter / 2 },
        {
          kind: 'block',
          from: [0, -RATCHET.handleWidth / 2, top],
          to: [RATCHET.handle, RATCHET.handleWidth / 2, top + RATCHET.headHeight],
        },
        {
          kind: 'block',
          from: [RATCHET.handle - GRIP.along, -GRIP.width / 2, top - GRIP.below],
          to: [RATCHET.handle, GRIP.width / 2, top + RATCHET.headHeight + GRIP.above / 2],
        },
      ],
      RATCHET_SWING_DEG,
    );
  }),
);

/** A tool turned about its own z axis, then stood on a pose. */
export const spunAt = (pose: Pose, angle_rad: number): Pose =>
  composed(pose, turnAbout([0, 0, 0], [0, 0, 1], angle_rad));

/** A direction tilted away from a pose's z axis, towards an azimuth about it. */
export const tilted = (pose: Pose, tilt_rad: number, azimuth_rad: number): Vec3 => {
  const [s, c] = [Math.sin(tilt_rad), Math.cos(tilt_rad)];
  return turned(pose, [s * Math.cos(azimuth_rad), s * Math.sin(azimuth_rad), c]);
};
