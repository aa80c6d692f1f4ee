import type { ComponentDocument, ConsumerDocument, SystemDocument } from './schema';

export type Receiver = Extract<ComponentDocument, { kind: 'receiver' }>;

/** A nozzle, and what it is held into: none where the plan does not say. */
export type Filling = {
  readonly k: number;
  readonly consumer: ConsumerDocument;
  readonly receiver: Receiver | undefined;
};

/** Each nozzle of a plan with all that it is held into, one after the other. */
export function heldInto(
  plan: Parameters<typeof fillingsOf>[0],
): { consumer: ConsumerDocument; receivers: Receiver[] }[] {
  const all = fillingsOf(plan);
  return [...new Set(all.map(({ consumer }) => consumer))].map((consumer) => ({
    consumer,
    receivers: all.flatMap((each) => (each.consumer === consumer && each.receiver ? [each.receiver] : [])),
  }));
}

/** Each nozzle of a plan, once for everything that it is held into. */
export const fillingsOf = ({
  consumers,
  components,
  lines,
}: Pick<SystemDocument, 'consumers' | 'components' | 'lines'>): Filling[] =>
  consumers.flatMap((consumer, k): Filling[] => {
    if (consumer.kind !== 'nozzle') return [];
    const joined = new Set(
      lines.flatMap(({ from, to }) =>
        from.item === consumer.id ? [to.item] : to.item === consumer.id ? [from.item] : [],
      ),
    );
    const receivers = components.filter((part): part is Receiver => part.kind === 'receiver' && joined.has(part.id));
    return receivers.length === 0
      ? [{ k, consumer, receiver: undefined }]
      : receivers.map((receiver) => ({ k, consumer, receiver }));
  });
