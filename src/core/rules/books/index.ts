import { type Rulebook, type BookRule } from './clause';
import { HEATER } from './heater';
import { PETROL_BOAT } from './petrolBoat';
import { SMALL_CRAFT } from './smallCraft';
import { TRUCK } from './truck';

const BOOKS: Readonly<Record<Rulebook, readonly Omit<BookRule, 'book' | 'id'>[]>> = {
  'road-truck-tank': TRUCK,
  'petrol-boat': PETROL_BOAT,
  'small-craft': SMALL_CRAFT,
  'vehicle-heater': HEATER,
};

const idOf = (clause: string): string =>
  `book.${clause
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/-$/, '')}`;

/** Every clause of every book. */
export const BOOK_RULES: readonly BookRule[] = (Object.keys(BOOKS) as Rulebook[]).flatMap((book) =>
  BOOKS[book].map((rule) => ({ ...rule, book, id: idOf(rule.clause) })),
);

export { BOOK_SOURCE, type BookRule, type Rulebook } from './clause';
