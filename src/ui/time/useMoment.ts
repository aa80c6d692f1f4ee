import { useEffect, useRef, useState } from 'react';
import type { Instant, Moment } from '@/core/answers';
import { failure, type Outcome } from '@/core/outcome';
import type { SystemDocument } from '@/core/plan';
import { askLane, URGENCY } from '../state/lanes';

type Asked = { readonly of: SystemDocument; readonly instant: Instant; readonly solid: number };
type KnownMoment = { readonly asked: string; readonly of: SystemDocument; readonly value: Outcome<Moment, string> };

/**
 * The tanks of a system as it was played, at a moment: one after the other is worked out, and of those that come in
 * meanwhile the newest, so that something moves while the time is dragged.
 */
export function useMoment(
  of: SystemDocument,
  instant: Instant,
  solid: number,
): { readonly value: Outcome<Moment, string> | undefined; readonly fresh: boolean } {
  const asked = JSON.stringify([instant, solid]);
  const [known, setKnown] = useState<KnownMoment>();
  const waiting = useRef<(Asked & { readonly asked: string }) | undefined>(undefined);
  const isBusy = useRef(false);
  useEffect(() => {
    waiting.current = { of, instant, solid, asked };
    if (isBusy.current) return;
    isBusy.current = true;
    const work = async (): Promise<void> => {
      while (waiting.current) {
        const one = waiting.current;
        waiting.current = undefined;
        const question = { slot: 'moment', urgency: URGENCY.next, key: 'moment' as const };
        const value = await askLane({ ...question, args: [one.instant, one.solid] }, one.of).then(
          (given) => given?.value,
          (error: unknown) => failure('broken', 'moment', error instanceof Error ? error.message : String(error)),
        );
        if (value) setKnown({ asked: one.asked, of: one.of, value });
      }
      isBusy.current = false;
    };
    void work();
    // What is asked says all of the moment.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [of, asked]);
  // Who has gone asks for nothing more.
  useEffect(
    () => () => {
      waiting.current = undefined;
    },
    [],
  );
  return {
    value: known?.of.tanks.length === of.tanks.length ? known.value : undefined,
    fresh: known?.asked === asked && known.of === of,
  };
}
