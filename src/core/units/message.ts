import { formatQuantity, type Role } from './format';
import type { ReaderSystem } from './parse';

/** A sentence with quantities in it: "{left} stays behind" with left = { value, role }. */
export type Message = {
  readonly text: string;
  readonly values: Readonly<Record<string, { readonly value: number; readonly role: Role }>>;
};

/** A sentence with quantities in SI to be filled in. */
export const say = (text: string, values: Message['values'] = {}): Message => ({ text, values });

/** The sentence with its quantities in the reader's units. */
export const messageText = ({ text, values }: Message, reader: ReaderSystem): string =>
  text.replace(/\{(\w+)\}/g, (whole, key: string) => {
    const quantity = values[key];
    return quantity ? formatQuantity(quantity.value, quantity.role, { reader }).text : whole;
  });
