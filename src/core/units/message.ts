import { formatQuantity, ROLES } from './format';
import type { Role } from './role';
import type { Reader } from './reader';

/** A sentence with quantities in it: "{left} stays behind" with left = { value, role }. */
export type Message = {
  readonly text: string;
  readonly values: Readonly<Record<string, { readonly value: number; readonly role: Role }>>;
};

/** A sentence with quantities in SI to be filled in. */
export const say = (text: string, values: Message['values'] = {}): Message => ({ text, values });

/**
 * A sentence of ours that never changes but for the reader's units: “{tape 0.025}” is that role's quantity, in SI.
 * Never for texts with names in them.
 */
export const inReaderUnits = (text: string, reader: Reader): string =>
  text.replace(/\{(\w+) ([-\d.e]+)\}/g, (whole, role: string, si: string) =>
    Object.hasOwn(ROLES, role) ? formatQuantity(Number(si), role as Role, { reader }).text : whole,
  );

/** The sentence with its quantities in the reader's units. */
export const messageText = ({ text, values }: Message, reader: Reader): string =>
  text.replace(/\{(\w+)\}/g, (whole, key: string) => {
    const quantity = values[key];
    return quantity ? formatQuantity(quantity.value, quantity.role, { reader }).text : whole;
  });
