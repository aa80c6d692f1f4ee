/** What happens at a moment, and to what. */
export type TimeEvent = {
  readonly t_s: number;
  readonly kind: EventKind;
  /** Of the tank, pickup, port, part or consumer. */ readonly of: string;
  readonly name: string;
};
export type EventKind =
  /** A pickup draws air; the line after it has run empty; air comes out at its end; no more air does. */
  | 'draws-air'
  | 'line-empty'
  | 'air-arrives'
  | 'line-clear'
  /** Liquid covers a vent or filler, or leaves it free again; it runs out there. */
  | 'covered'
  /** A vent's valve, by how far it leans or by a float. */
  | 'vent-shuts'
  | 'vent-opens'
  | 'free'
  | 'spills'
  | 'full'
  | 'float-shuts'
  | 'float-opens'
  | 'switch-stops'
  | 'switch-starts'
  | 'clicks-off'
  | 'poured'
  | 'neck-full'
  /** What a nozzle of the system is held into is full: it shuts by itself, or nobody shuts it. */
  | 'nozzle-shuts'
  | 'runs-over'
  | 'starves'
  | 'fed'
  /** A consumer that got next to nothing for a while, and does not start again by itself. */
  | 'stops'
  | 'set';

/** How it all stands at one moment. In the plan's order. */
export type Sample = {
  readonly t_s: number;
  readonly pitch_deg: number;
  readonly roll_deg: number;
  readonly temperature_K: number;
  readonly tanks: readonly {
    readonly volume_m3: number;
    /** Of the gas over the liquid, over the air outside. */ readonly gauge_Pa: number;
    /** Of the surface along the tank's own upward way. */ readonly offset_m: number;
  }[];
  /** Through each line, as it is written. */ readonly lines_m3PerS: readonly number[];
  /** What comes to each consumer. */ readonly consumers_m3PerS: readonly number[];
};

/** What went where from the beginning to the end; litres as they were at the beginning's temperature. */
export type Totals = {
  readonly poured_m3: number;
  readonly burnt_m3: readonly { readonly id: string; readonly volume_m3: number }[];
  readonly spilt_m3: readonly { readonly id: string; readonly volume_m3: number }[];
  /** Gas that went out by vents and caps, less what came in [mol]; of it and beside it, vapour that fuel gave off. */
  readonly ventedOut_mol: number;
  readonly evaporated_mol: number;
};

export type Simulated = {
  readonly samples: readonly Sample[];
  readonly events: readonly TimeEvent[];
  readonly totals: Totals;
  /** What cannot be accounted for, as a share of what moved: of liquid, and of gas. */
  readonly unaccounted: { readonly liquid_ratio: number; readonly gas_ratio: number };
  readonly work: { readonly steps: number; readonly refused: number; readonly solutions: number };
};
