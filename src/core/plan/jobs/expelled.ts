import { fluidState } from '../../fluids';
import { unwrap } from '../../outcome';
import type { FluidKey } from '../../reference/fluids';
import { assumed, chosen, fromPart, measured } from '../../schema/known';
import type { ComponentDocument, LineDocument, SystemDocument, TankDocument } from '../schema';
import { emptySystem } from './emptySystem';
import { boxTank, lidPort, linesOfRun, sizesFor, type Sizes, type Stop } from './kit';

export const EXPELLED = ['catch', 'coolant', 'overflow'] as const;

export type ExpelledTank = {
  readonly name: string;
  readonly vehicle: SystemDocument['vehicle']['kind'];
  readonly what: (typeof EXPELLED)[number];
  /** Oil in the engine, coolant in the whole system, or fuel in the tank it stands beside [m³]. */
  readonly source_m3: number;
  /** Of the engine [W]: its blow-by follows from that. */ readonly power_W?: number | undefined;
  /** Catch tank: as large as all the oil, or small and emptied often. */ readonly school: 'full' | 'small';
};

/** Common practice: so much more than swells stays in the bottle cold, so that it never draws air. */
const COLD_REST_RATIO = 0.5;
const SMALL_CATCH_M3 = 1e-3;
/** Common practice: fuel in a full tank swells by so much on a hot day, from where no head room was left. */
const SWELLS_RATIO = 0.03;
const LEAST_M3 = 2e-4;

/** Common practice: coolant between a cold start and hot under its cap [K]. */
const COOLANT_K = { cold: 278.15, hot: 383.15 } as const;
const CAP_PA = 100e3;
/** Common practice: gas past the rings of a worn engine, of each watt of it [m³/s], at most so much more or less. */
const BLOW_BY = { perWatt: 1e-3 / 60 / 1e3, spread: 0.5 } as const;
const USUAL_POWER_W = 100e3;
/** Common practice: from here on seals weep. */
const CRANKCASE_PA = 1500;

/** How much a coolant swells from cold to hot, as a share of it cold. */
export function coolantSwell_ratio(): number {
  const density = (temperature_K: number): number =>
    unwrap(fluidState({ key: 'coolant' }, temperature_K)).density_kgPerM3;
  return density(COOLANT_K.cold) / density(COOLANT_K.hot) - 1;
}

/** What such a tank has to hold [m³]. */
export function expelledVolume_m3({
  what,
  source_m3,
  school,
}: Pick<ExpelledTank, 'what' | 'source_m3' | 'school'>): number {
  const asked =
    what === 'catch'
      ? school === 'full'
        ? source_m3
        : SMALL_CATCH_M3
      : what === 'coolant'
        ? source_m3 * coolantSwell_ratio() * (1 + COLD_REST_RATIO)
        : source_m3 * SWELLS_RATIO;
  return Math.max(LEAST_M3, asked);
}

const FLUID: Readonly<Record<ExpelledTank['what'], FluidKey>> = {
  catch: 'engine-oil',
  coolant: 'coolant',
  overflow: 'petrol',
};
const UPRIGHT = [1, 0.8, 1.6] as const;

/** A tank for what an engine throws out: no consumer, nothing delivered, but room for what may come. */
export function expelledTank(asked: ExpelledTank): SystemDocument {
  const empty = emptySystem(asked.name, asked.vehicle, FLUID[asked.what]);
  const holds = expelledVolume_m3(asked);
  const sizes = sizesFor(holds, {}, UPRIGHT);
  const tank = boxTank({
    id: 'tank',
    name: { catch: 'Catch tank', coolant: 'Coolant recovery tank', overflow: 'Overflow can' }[asked.what],
    fluid: 'fuel',
    sizes,
    ports: PORTS[asked.what](sizes),
    pickups: [],
  });
  const rest = asked.what === 'coolant' ? COLD_REST_RATIO / (1 + COLD_REST_RATIO) : 0;
  const planned: SystemDocument = {
    ...empty,
    rulebook: asked.vehicle === 'boat' ? 'small-craft' : 'none',
    ...(asked.what === 'catch' ? { practice: { ...empty.practice, catchTank: asked.school } } : {}),
    wishes: { ...empty.wishes, holds_m3: chosen(Math.floor(holds * 1e5) / 1e5) },
    conditions: { ...empty.conditions, fills: [{ tank: 'tank', fill_ratio: Number((rest * 0.95).toFixed(3)) }] },
    tanks: [tank],
    components: [...sourceOf(asked), ...outletOf(asked)],
  };
  return { ...planned, lines: linesFor(asked, planned) };
}

/** What it comes out of, where that is known. */
function sourceOf({ what, source_m3, power_W = USUAL_POWER_W }: ExpelledTank): ComponentDocument[] {
  const blows = power_W * BLOW_BY.perWatt;
  if (what === 'catch')
    return [
      {
        id: SOURCE,
        name: 'Crankcase',
        ends: [],
        kind: 'crankcase',
        oil_m3: measured(source_m3, source_m3 * 0.05),
        blowBy_m3PerS: assumed(Number(blows.toPrecision(3)), Number((blows * BLOW_BY.spread).toPrecision(2))),
        mostPressure_Pa: assumed(CRANKCASE_PA, 500),
      },
    ];
  if (what === 'coolant')
    return [
      {
        id: SOURCE,
        name: 'Cooling system',
        ends: [],
        kind: 'cooling-system',
        coolant_m3: measured(source_m3, source_m3 * 0.05),
        cap_Pa: fromPart(CAP_PA),
        cold_K: assumed(COOLANT_K.cold, 8),
        hot_K: assumed(COOLANT_K.hot, 8),
      },
    ];
  return [];
}

/** Where the air that it pushes out comes to the open; a bleed hole needs no hose. */
const outletOf = ({ what }: ExpelledTank): ComponentDocument[] =>
  what === 'coolant'
    ? []
    : [{ id: 'open-end', name: 'End of the breather', ends: [], kind: 'outlet', place: 'outside', screened: true }];

const SOURCE = 'source';
/** Common practice: hoses of a crankcase, of a radiator's neck, and of a small vent [m]. */
const HOSES: Readonly<Record<ExpelledTank['what'], { readonly bore_m: number; readonly length_m: number }>> = {
  catch: { bore_m: 0.019, length_m: 0.8 },
  coolant: { bore_m: 0.008, length_m: 0.6 },
  overflow: { bore_m: 0.01, length_m: 0.5 },
};

/** From the engine to the tank, and from its vent to the open. */
function linesFor({ what }: ExpelledTank, system: SystemDocument): LineDocument[] {
  const { bore_m, length_m } = HOSES[what];
  const length = assumed(length_m, length_m / 2);
  const lines: LineDocument[] = [];
  const lead = (purpose: LineDocument['purpose'], stops: readonly Stop[], rise_m: number): void => {
    lines.push(...linesOfRun({ ...system, lines }, { purpose, stops, bore_m, length, rise_m }));
  };
  const [source] = system.components;
  if (what !== 'overflow' && source)
    lead(
      what === 'catch' ? 'vent' : 'overflow',
      [
        { item: SOURCE, name: source.name },
        { item: 'inlet', name: 'The tank' },
      ],
      0,
    );
  if (what !== 'coolant')
    lead(
      'vent',
      [
        { item: 'vent', end: 'in', name: 'Breather' },
        { item: 'open-end', name: 'The open' },
      ],
      -0.2,
    );
  return lines;
}

const none = chosen(0);
const drain = ({ length, width }: Sizes): TankDocument['ports'][number] => ({
  id: 'drain',
  name: 'Drain',
  role: 'drain',
  face: 'floor',
  x_m: chosen(length.value / 2),
  y_m: chosen(width.value / 2),
  bore_m: fromPart(0.01),
  length_m: none,
});

const PORTS: Readonly<Record<ExpelledTank['what'], (sizes: Sizes) => TankDocument['ports']>> = {
  catch: (sizes) => [
    lidPort(sizes, 'inlet', 'From the crankcase', 'return', [0.25, 0.5], { bore_m: fromPart(0.019), length_m: none }),
    lidPort(sizes, 'vent', 'Breather', 'vent', [0.75, 0.5], {
      bore_m: assumed(0.019, 0.003),
      length_m: assumed(0.02, 0.01),
    }),
    drain(sizes),
  ],
  // It comes in and is drawn back by the foot; a small hole lets air through.
  coolant: (sizes) => [
    lidPort(sizes, 'filler', 'Cap', 'filler', [0.4, 0.4], {
      bore_m: assumed(0.03, 0.005),
      length_m: assumed(0.01, 0.005),
    }),
    lidPort(sizes, 'vent', 'Bleed hole', 'vent', [0.8, 0.78], { bore_m: assumed(0.003, 0.001), length_m: none }),
    { ...drain(sizes), id: 'inlet', name: 'To the radiator neck', role: 'feed', bore_m: fromPart(0.008) },
  ],
  overflow: (sizes) => [
    lidPort(sizes, 'inlet', 'From the tank’s vent', 'return', [0.25, 0.5], { bore_m: fromPart(0.014), length_m: none }),
    lidPort(sizes, 'vent', 'Vent', 'vent', [0.75, 0.5], { bore_m: assumed(0.01, 0.002), length_m: assumed(0.3, 0.2) }),
    drain(sizes),
  ],
};
