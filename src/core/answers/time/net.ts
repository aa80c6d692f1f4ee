import type { FluidState } from '../../fluids';
import type { FlowInputs } from '../../model/networkParts';
import type { GraphLink, GraphNode, GraphShape, Joined } from '../../network';

/** Where a net ends: what gives its pressure there. Heights are against effective gravity, over the vehicle's datum. */
export type Place =
  /** In the liquid of a tank, that stands over it. */
  | { readonly at: 'liquid'; readonly tank: number }
  /** Over the liquid, or in it, of a mouth at a height. */
  | { readonly at: 'mouth'; readonly tank: number; readonly height_m: number }
  /** In the gas of a tank at a height: a pickup that draws air. */
  | { readonly at: 'gas'; readonly tank: number; readonly height_m: number }
  /** Of a net of air: in a tank, over its liquid. */
  | { readonly at: 'ullage'; readonly tank: number }
  /** Of a net of air: in a tank's liquid, which air has to push aside. */
  | { readonly at: 'under'; readonly tank: number; readonly height_m: number }
  | { readonly at: 'open'; readonly gauge_Pa: number; readonly height_m: number };

/** What comes to an end of a net, or leaves by it, is this one's. */
export type Account =
  | { readonly of: 'tank'; readonly tank: number }
  /** Gas of a tank that goes into a line. */
  | { readonly of: 'line'; readonly tank: number; readonly pickup: string }
  | { readonly of: 'consumer'; readonly id: string }
  /** Out of a vent or filler that liquid covers; at an open end of a line. */
  | { readonly of: 'spilt'; readonly id: string }
  | { readonly of: 'outside' };

export type End = { readonly node: number; readonly place: Place; readonly account: Account; readonly link: number };

/** What hangs together between given pressures, made ready to be solved again and again. */
export type Net = {
  readonly medium: 'liquid' | 'air';
  readonly fluid: FluidState;
  /** Of a metre of what is in it [Pa]; none of air. */ readonly weight_PaPerM: number;
  readonly nodes: readonly (GraphNode & { fixed_Pa?: number; outflow_m3PerS?: number })[];
  readonly links: readonly GraphLink[];
  readonly joined: readonly Joined[];
  readonly ends: readonly End[];
  /** Consumers that take something out of it, by a link; those that feed what they do not burn into a node of it. */
  readonly takers: readonly { readonly consumer: number; readonly link: number }[];
  readonly givers: readonly { readonly consumer: number; readonly node: number }[];
  readonly isRegulated: boolean;
  readonly shape: GraphShape | undefined;
};

/** What a pickup does: draws liquid; draws air into its line; its line is empty; liquid follows the air again. */
export type Drawing = 'liquid' | 'air' | 'empty' | 'clearing';

/** What of a system stays the same from one event to the next. */
export type Stretch = {
  /** With the fluid of each tank; valves and all as they stand. */
  readonly inputs: readonly FlowInputs[];
  /** Vents and fillers under liquid; mouths of lines under it. */
  readonly covered: ReadonlySet<string>;
  readonly drowned: ReadonlySet<string>;
  readonly pickups: ReadonlyMap<string, Drawing>;
  /** Float valves that are shut. */ readonly floats: ReadonlySet<string>;
  readonly blocked: ReadonlySet<string>;
  /** Fillers without their cap, each with the spout that stands in it [m]. */
  readonly uncapped: ReadonlyMap<string, number>;
  /** What each consumer takes at most [m³/s]; nothing where it is off. */
  readonly takes_m3PerS: ReadonlyMap<string, number>;
  /** Nozzles that run on over what is full, each with what that is. */ readonly over: ReadonlyMap<string, string>;
  /** Whether engines run, and gas comes out of their crankcases. */ readonly blows: boolean;
  /** By tank: what is added to what gas and spills meet at a port that liquid covers, as it then is [Pa s/m³]. */
  readonly damps_PaSPerM3: Float64Array;
};
