import { boolean, type InferType, type Schema } from 'yup';
import type { FittingLoss, LinkElement } from '../network';
import { assumed, bounded, known, type Known } from '../schema/known';
import { closed, id, listOf, name, oneOf, text } from '../schema/tools';
import { JOIN_SYSTEMS } from '../reference/joins';
import type { FittingKey } from '../reference/losses';

/** Ends of a part, by which lines are joined to it. In and out are as flow is meant; side ends are what else it has. */
export const END_NAMES = ['in', 'out', 'side', 'side2'] as const;
export type EndName = (typeof END_NAMES)[number];
/** Two ends that are joined inside a part. */
export type EndPair = readonly [EndName, EndName];

const BORE_M = [0.0005, 0.1] as const;
/** The field of an inside diameter [m]. */
export const bore = () => known(...BORE_M, 'bore', 'bore');
/** The fields that say what an end screws or slides onto. */
export const joinKeys = () => ({
  system: oneOf(JOIN_SYSTEMS),
  size: text(20).required('is missing'),
  side: oneOf(['male', 'female'] as const),
});
/** How an end of a part is made, and whether a plug closes it. What is silent is not known yet. */
export const madeEnd = () =>
  closed({ end: oneOf(END_NAMES), ...joinKeys(), plugged: boolean().typeError('must be true or false').optional() });
/** The fields that every part has. */
export const common = () => ({ id: id(), name: name(), ends: listOf(madeEnd(), 4) });
/** A loss that the maker gives as one drop at one flow. */
export const rated = () => ({
  ratedFlow_m3PerS: known(1e-8, 0.1, 'rated flow', 'burn'),
  ratedDrop_Pa: known(0, 1e6, 'pressure drop at rated flow', 'pressure'),
  ratedDensity_kgPerM3: known(500, 2000, 'density of the rating', 'density'),
});
/** The field of a pump's curve: flows [m³/s] with the rise at each [Pa]. */
export const curvePoints = () => listOf(closed({ flow_m3PerS: bounded(0, 0.1), rise_Pa: bounded(0, 5e6) }), 40);

/** A part as it stands in a plan: what every kind has. */
export type AnyPart = {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly ends: readonly InferType<ReturnType<typeof madeEnd>>[];
};

/** What a new part is begun from. */
export type Beginning = {
  /** Of the line that it is put into [m]. */ readonly bore: Known;
  /** The most that any consumer needs [m³/s]. */ readonly flow_m3PerS: number;
  /** The tank that a part of one tank is put on. */ readonly tank: string;
};
/** What a rated part is begun with: twice what is needed, at a small drop. */
export const ratedStart = (flow_m3PerS: number) => ({
  ratedFlow_m3PerS: assumed(2 * flow_m3PerS, 0.5 * flow_m3PerS),
  ratedDrop_Pa: assumed(5000, 2500),
  ratedDensity_kgPerM3: assumed(830, 30),
});

/** What the losses of a part depend on beside the part itself. */
export type Hydraulics = {
  /** A fitting's loss by the method that the plan chose; a share of one as a count. */
  readonly fitting: (key: FittingKey, count: number) => FittingLoss;
  /** Of the liquid [Pa·s]. */ readonly viscosity_PaS: number;
  /** At the battery, or at a pump without wires [V]. */ readonly supply_V: number;
  /** What stands in a tank and what it could hold [m³]. */
  readonly tank: (id: string) => { readonly volume_m3: number; readonly gross_m3: number } | undefined;
};

/** The point in a part where all its ends meet. */
export const MIDDLE = 'middle';
/** What flow meets between two places of a part. The link is named by the part, with a suffix where it has several. */
export type PartLink = {
  readonly suffix?: string;
  readonly from: EndName | typeof MIDDLE;
  readonly to: EndName | typeof MIDDLE;
  readonly elements: readonly LinkElement[];
};
/** From its inlet to its outlet. */
export const straight = (...elements: LinkElement[]): PartLink[] => [{ from: 'in', to: 'out', elements }];
/** A loss that sits in a body of no length. */
export const body = (hydraulics: Hydraulics, fitting: FittingKey, bore_m: number, share = 1): LinkElement => ({
  kind: 'line',
  bore_m,
  length_m: 0,
  roughness_m: 0,
  fittings: [hydraulics.fitting(fitting, share)],
});

/** What a part meets of liquid that drains through it to a break, with the pumps at rest. */
export type Draining = {
  /** From the highest surface down to the break [Pa]. */ readonly head_Pa: number;
  /** True where the part lies over every surface. */ readonly isOverSurfaces: boolean;
};

/** What somebody sets a part to in use, or chooses of it once. */
export type Choice = {
  readonly key: string;
  readonly label: string;
  /** What holds where nothing is said; that is told as not said where left out. */ readonly unsaid?: boolean;
  /** What each value is called, in the order offered. */
  readonly options: readonly { readonly value: string | boolean; readonly label: string }[];
};
/** A choice among words. */
export const choice = <T extends string>(key: string, label: string, words: Readonly<Record<T, string>>): Choice => ({
  key,
  label,
  options: (Object.keys(words) as T[]).map((value) => ({ value, label: words[value] })),
});
/** Whether a part stands in the tank, with the pump of its module. */
export const inTankChoice: Choice = {
  key: 'inTank',
  label: 'It stands',
  unsaid: false,
  options: [
    { value: false, label: 'outside the tank' },
    { value: true, label: 'in the tank, on the module' },
  ],
};
/** A choice of two, written as true or false. */
export const yesNo = (key: string, label: string, yes: string, no: string): Choice => ({
  key,
  label,
  options: [
    { value: true, label: yes },
    { value: false, label: no },
  ],
});

/**
 * All that there is to say of one kind of part: how it is written, drawn,
 * solved, drained and spoken of. `components/index.ts` lists the kinds.
 */
export type ComponentKindOf<P extends AnyPart> = {
  readonly schema: Schema<P>;
  /** What it is. */ readonly word: string;
  /** What a new one is called. */ readonly name: string;
  /** Its ends, in order, and what each is called. */
  readonly ends: Readonly<Partial<Record<EndName, string>>>;
  /** Ends that one made so has; all where left out. */
  readonly endsAsMade?: (part: P) => readonly EndName[];
  readonly start: (from: Beginning) => Omit<P, 'id' | 'name' | 'ends' | 'kind'>;
  readonly links: (part: P, hydraulics: Hydraulics) => readonly PartLink[];
  /** True of one whose ends meet in a point of its own. */ readonly hasMiddle?: boolean;
  /** True of one that stands open to the air. */ readonly isOpenToAir?: boolean;
  /** True of one that is no part to buy: where a circuit ends or begins. */ readonly isEndPoint?: boolean;
  /** The gas that comes out of it all the time [m³/s]. */ readonly blows_m3PerS?: (part: P) => number;

  /** What of it is moved in use, and how it stands in a word or two. */
  readonly moved?: { readonly key: keyof P & string; readonly word: (part: P) => string };
  /** True where somebody has shut it. */ readonly isShut?: (part: P) => boolean;
  /** What is said of one that stands in the way. */ readonly inTheWay?: string;
  /** Pairs of ends that its position joins; any with any where left out. */
  readonly joins?: (part: P) => readonly EndPair[];
  /** Whether liquid drains through it from one end towards another; it does where left out. */
  readonly drains?: (
    part: P,
    way: { readonly from: EndName; readonly towards: EndName },
    draining: Draining,
  ) => boolean;
  /** The end by which it lets back what is too much, and the suffix of the link that does. */
  readonly letsBack?: (part: P) => { readonly end: EndName; readonly suffix?: string } | undefined;
  /** What a builder would try where it costs too much, and the value that this sets. */
  readonly remedies?: (part: P) => readonly { readonly change: string; readonly key: string; readonly value: number }[];

  readonly choices?: readonly Choice[];
  /** Quantities that it may have and was not begun with. */
  readonly additions?: readonly {
    readonly key: keyof P & string;
    readonly label: string;
    readonly edit: string;
    readonly start: (part: P) => Known;
  }[];
};
