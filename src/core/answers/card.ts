import { array, boolean, number, object, string, type InferType } from 'yup';
import type { Outcome } from '../outcome';
import { conditions } from '../plan/schemaState';
import { ROLES, type Role } from '../units';
import type { Sensitivity } from './sensitivity';
import { NUMBER_KEYS, type NumberKey, type Numbers } from './numbers';

/**
 * What the card of a system shows in the library, small enough to be kept
 * beside the system: its numbers, and how many findings of each kind there are.
 */
export const cardSchema = object({
  numbers: array(
    object({
      key: string<NumberKey>().oneOf(NUMBER_KEYS).required(),
      value: number().required(),
      role: string<Role>()
        .oneOf(Object.keys(ROLES) as Role[])
        .required(),
      /** Half of what it lies within about 95 times in 100; nothing where that was not worked out. */
      spread: number().min(0).optional(),
      /** Set where it cannot be worked out, which is not the same as not having been. */
      hasNoSpread: boolean().optional(),
    }).noUnknown(),
  )
    .max(NUMBER_KEYS.length)
    .required(),
  stops: count(),
  warns: count(),
  notes: count(),
  notJudged: count(),
  /** Why nothing could be worked out. */
  fails: string().max(400).optional(),
}).noUnknown();

function count() {
  return number().integer().min(0).max(9999).required();
}

/** A card as a page sends it: with the conditions that it holds at, since these make no revision. */
export const sentCardSchema = object({ card: cardSchema.required(), conditions: conditions.required() }).noUnknown();

export type Card = InferType<typeof cardSchema>;
export type CardFigure = {
  readonly key: NumberKey;
  readonly value: number;
  readonly role: Role;
  readonly spread?: number | undefined;
  readonly hasNoSpread?: boolean | undefined;
};

export type Counted = {
  readonly findings: readonly { readonly severity: string }[];
  readonly notJudged: readonly unknown[];
};

/** The card of a system from its numbers and what every rule says of it, with their spreads where they are known. */
export function cardOf(numbers: Numbers, { findings, notJudged }: Counted, sensitivity?: Sensitivity): Card {
  const of = (severity: string): number => findings.filter((finding) => finding.severity === severity).length;
  return {
    numbers: NUMBER_KEYS.flatMap((key) => {
      const found: Outcome<{ value: number; role: Role }> = numbers[key];
      if (!found.ok || !Number.isFinite(found.value.value)) return [];
      const figure = { key, ...found.value };
      if (sensitivity?.unknown.includes(key)) return [{ ...figure, hasNoSpread: true }];
      const spread = sensitivity?.spreads[key];
      return [spread === undefined ? figure : { ...figure, spread }];
    }),
    stops: of('stop'),
    warns: of('warn'),
    notes: of('note'),
    notJudged: notJudged.length,
  };
}

/** The card of one that cannot be worked out at all. */
export const failedCard = (detail: string): Card => ({
  numbers: [],
  stops: 0,
  warns: 0,
  notes: 0,
  notJudged: 0,
  fails: detail.slice(0, 400),
});
