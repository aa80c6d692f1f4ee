import type { ClosedMesh, Vec3 } from '../geometry';

/** A body in the tank that a sender may meet. */
export type Hindrance = { readonly name: string; readonly mesh: ClosedMesh };

/** The part of its travel that nothing stands in the way of, and what ends it before its own stops do. */
export type FreeRun = {
  readonly low_share: number;
  readonly high_share: number;
  readonly lowBy?: string;
  readonly highBy?: string;
};

export type SenderCode = 'stops-crossed' | 'no-swing' | 'no-span';
type Why = { readonly code: SenderCode; readonly detail: string };

/** How a kind of sender works: where it stands and what it takes up, at each share of its travel. Tank frame [m]. */
export type SenderLaw<S> = {
  /** A point of it that lies within its room. */ readonly inside_m: (sender: S) => Vec3;
  /** Where it begins, and the lowest point of what does not move, with half its width. */
  readonly head_m: (sender: S) => Vec3;
  readonly foot_m: (sender: S) => Vec3;
  readonly stemRadius_m: (sender: S) => number;
  /** What contradicts itself in its sizes. */ readonly contradiction: (sender: S) => Why | undefined;
  /** What is said of one that is free nowhere. */ readonly stuck: Why;
  readonly freeRun: (sender: S, room: ClosedMesh, round: readonly Hindrance[], keep_m: number) => FreeRun | undefined;
  readonly shareAt: (sender: S, free: FreeRun, up: Vec3, offset_m: number) => number;
  /** Share from contact to contact; 0 where it is continuous. */
  readonly contact_share: (sender: S) => number;
  /** The middle of its float, or of what is wet; and the line that it hangs on, as drawn. */
  readonly middle_m: (sender: S, share: number) => Vec3;
  readonly line_m: (sender: S, share: number) => readonly Vec3[];
  readonly drawnRadius_m: (sender: S) => number;
  /** Balls that take up all of it that the level moves. */
  readonly balls: (sender: S, share: number) => readonly { readonly at_m: Vec3; readonly radius_m: number }[];
  /** Of one with an arm: its length, where it points, and the same with an arm so much longer. */
  readonly arm?: {
    readonly length_m: (sender: S) => number;
    readonly angle_rad: (sender: S, share: number) => number;
    readonly longer: (sender: S, by_ratio: number) => S;
  };
};
