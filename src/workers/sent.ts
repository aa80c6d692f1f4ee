import { editsBetween, FORMAT, withEdits, type PathEdit, type SystemDocument } from '@/core/plan';

/**
 * A document on its way to a worker: whole the first time, and afterwards what
 * changed since the last, so that a large one is not copied with every edit,
 * and that what did not change is the very same there too.
 */
export type Sent = { readonly number: number } & (
  { readonly whole: SystemDocument } | { readonly edits: readonly PathEdit[] }
);

const SENT = 'gasline-sent';
type Message = { readonly [SENT]: Sent };

const isSystem = (value: unknown): value is SystemDocument =>
  typeof value === 'object' && value !== null && (value as { format?: unknown }).format === FORMAT;
const isMessage = (value: unknown): value is Message => typeof value === 'object' && value !== null && SENT in value;

/** One end of a worker's line: puts documents among the arguments of its calls into what is sent. */
export function sender(): (args: readonly unknown[]) => unknown[] {
  let last: SystemDocument | undefined;
  let number = 0;
  const sent = (system: SystemDocument): Message => {
    const message: Sent = { number: ++number, ...(last ? { edits: editsBetween(last, system) } : { whole: system }) };
    last = system;
    return { [SENT]: message };
  };
  return (args) => args.map((arg) => (isSystem(arg) ? sent(arg) : arg));
}

/** The other end: the worker's functions, each called with the documents that were meant. */
export function receiving<Api extends object>(api: Api): Api {
  let last: SystemDocument | undefined;
  let number = 0;
  const received = ({ [SENT]: sent }: Message): SystemDocument => {
    if (sent.number !== ++number)
      throw new Error(`a document was lost on its way: ${number} expected, ${sent.number} came`);
    if ('whole' in sent) return (last = sent.whole);
    if (!last) throw new Error('what changed came before what it changes');
    return (last = withEdits(last, sent.edits));
  };
  const made = Object.entries(api).map(([name, act]) => [
    name,
    (...args: readonly unknown[]) =>
      (act as (...given: readonly unknown[]) => unknown)(...args.map((arg) => (isMessage(arg) ? received(arg) : arg))),
  ]);
  return Object.fromEntries(made) as Api;
}
