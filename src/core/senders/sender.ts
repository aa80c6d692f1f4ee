import type { Schema } from 'yup';
import type { Sender } from '../gauge';
import type { Vec3 } from '../geometry';
import { bounded, known, type Known } from '../schema/known';
import { byKind, closed, id, kindIs, listOf, name } from '../schema/tools';

/** What a sender gives, or a gauge wants, at empty and at full. */
const scaleOf = () =>
  byKind({
    resistance: closed({
      kind: kindIs('resistance'),
      empty_ohm: known(0, 1e5, 'ohms at empty', 'resistance'),
      full_ohm: known(0, 1e5, 'ohms at full', 'resistance'),
    }),
    voltage: closed({
      kind: kindIs('voltage'),
      empty_V: known(-60, 60, 'volts at empty', 'voltage'),
      full_V: known(-60, 60, 'volts at full', 'voltage'),
    }),
  });

/** Half-width of the needle's own error as a share of full scale; and where its low-level lamp lights. */
const needle = () => ({
  tolerance_ratio: known(0, 0.5, 'needle tolerance', 'share'),
  lamp_ratio: known(0, 0.5, 'needle where the lamp lights', 'share').optional(),
});
const gauge = byKind({
  linear: closed({ kind: kindIs('linear'), scale: scaleOf(), ...needle() }),
  'cross-coil': closed({
    kind: kindIs('cross-coil'),
    empty_ohm: known(0, 1e5, 'ohms at empty', 'resistance'),
    half_ohm: known(0, 1e5, 'ohms at half', 'resistance'),
    full_ohm: known(0, 1e5, 'ohms at full', 'resistance'),
    ...needle(),
  }),
  calibrated: closed({
    kind: kindIs('calibrated'),
    /**
     * What the gauge was taught: what the sender gives, and what should be shown. Straight between them. None: it is
     * taught as planned.
     */
    points: byKind({
      resistance: closed({
        kind: kindIs('resistance'),
        at: listOf(closed({ reading_ohm: bounded(0, 1e5), shown_ratio: bounded(0, 1) }), 64),
      }),
      voltage: closed({
        kind: kindIs('voltage'),
        at: listOf(closed({ reading_V: bounded(-60, 60), shown_ratio: bounded(0, 1) }), 64),
      }),
    }),
    /** How many points it takes. */
    mostPoints: bounded(2, 64).integer('must be a whole number'),
    ...needle(),
  }),
});

/** What every sender has, whatever its kind. */
export const sent = () => ({
  id: id(),
  name: name(),
  port: id(),
  output: scaleOf(),
  gauge,
  /** Half-width of what the sender gives wrongly, as a share of its span. */
  tolerance_ratio: known(0, 0.5, 'sender tolerance', 'share'),
});
type Sent = 'id' | 'name' | 'port' | 'output' | 'gauge' | 'tolerance_ratio';

/** The fields of a float. */
export const floats = () => ({
  floatDiameter_m: known(0.005, 0.3, 'float diameter', 'tape'),
  /** Of the float's height, under the surface. */ immersion_ratio: known(0, 1, 'float under the surface', 'share'),
});
/** A float half under rides with its middle in the surface; how far over it else [m]. */
export const riseOf = ({
  floatDiameter_m,
  immersion_ratio,
}: {
  floatDiameter_m: Known;
  immersion_ratio: Known;
}): number => (0.5 - immersion_ratio.value) * floatDiameter_m.value;

/** A sender as it stands in a plan: what every kind has. */
export type AnySender = Readonly<Record<Sent, unknown>> & { readonly kind: string };

/**
 * All that there is to say of one kind of sender: how it is written, begun,
 * compiled and spoken of. How it follows the level is its law (`gauge/senderLaw.ts`);
 * `senders/index.ts` lists the kinds.
 */
export type SenderKindOf<D extends AnySender> = {
  readonly schema: Schema<D>;
  /** What it is. */ readonly word: string;
  /** Sizes of a new one in a tank so deep [m]. */
  readonly start: (depth_m: number) => Omit<D, Sent | 'kind'>;
  /** @param port_m where it goes through the sheet, tank frame */
  readonly compile: (document: D, port_m: Vec3) => Sender;
  /** Sizes by which it follows the level, as its working lists them. */ readonly sizes: readonly (keyof D & string)[];
  /** What is changed first to let it reach lower, and higher. */
  readonly lowerBy: keyof D & string;
  readonly higherBy: keyof D & string;
  /** What its handle in a drawing is, and the depth under the sheet that moves with it. */
  readonly handle: { readonly word: string; readonly depth?: keyof D & string };
  /** True of one that measures charge, which alcohol and water upset. */ readonly feelsCharge?: boolean;
};
