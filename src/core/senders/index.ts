import type { AnySchema, InferType } from 'yup';
import type { FieldWords, Known } from '../schema/known';
import { byKind, keys } from '../schema/tools';
import { capacitive } from './capacitive';
import type { SenderKindOf } from './sender';
import { swingArm } from './swingArm';
import { tube } from './tube';

/** Every kind of sender, in the order in which they are offered. */
export const SENDERS = { 'swing-arm': swingArm, tube, capacitive } as const;
export type SenderKind = keyof typeof SENDERS;
export const SENDER_KINDS = keys(SENDERS);

type Schemas = { readonly [K in SenderKind]: (typeof SENDERS)[K]['schema'] };
export const sender = byKind(Object.fromEntries(SENDER_KINDS.map((kind) => [kind, SENDERS[kind].schema])) as Schemas);
export type SenderDocument = InferType<typeof sender>;

/** What there is to say of a sender's kind, for senders of any. */
export const senderKind = ({ kind }: Pick<SenderDocument, 'kind'>): SenderKindOf<SenderDocument> =>
  SENDERS[kind] as unknown as SenderKindOf<SenderDocument>;

/** Sizes by which a sender follows the level, with what a builder calls each. */
export const senderSizes = (
  document: SenderDocument,
): readonly { readonly key: string; readonly label: string; readonly known: Known }[] =>
  senderKind(document).sizes.map((key) => ({
    key,
    label: ((SENDERS[document.kind].schema.fields[key as 'id'] as unknown as AnySchema).meta() as FieldWords).label,
    known: document[key] as unknown as Known,
  }));

export { SWINGS, type SwingArmDocument } from './swingArm';
