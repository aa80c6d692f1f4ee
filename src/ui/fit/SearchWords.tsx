'use client';

import { Box } from '@chakra-ui/react';
import type { SystemDocument } from '@/core/plan';
import type { Opening, WayNews } from '@/core/answers';

/** A search for a way, as far as it is known. */
export type Search = WayNews & { readonly part: string; readonly system: SystemDocument; readonly stopped?: boolean };

/** How far a search has come while it goes on, and what it had come to when it was stopped. */
export function Searched({
  search: { progress, seconds, openings, stopped },
  running,
  changed,
  size,
}: {
  readonly search: Search;
  readonly running: boolean;
  /** Whether the system is another than the search began with. */ readonly changed: boolean;
  readonly size: (value: number) => string;
}) {
  if (!running && !stopped) return null;
  const looked = progress
    ? `${progress.samples.toLocaleString('en')} positions in ${Math.round(seconds ?? 0)} s${Number.isFinite(progress.leastGap_m) ? `, through gaps down to ${size(progress.leastGap_m)}` : ''}`
    : 'a few positions';
  return (
    <Box mt="2" fontWeight="600" color={running ? 'soft' : 'stop'} data-testid="way-search">
      {running
        ? `Looked at ${looked}. No way out yet; it goes on until there is one or you stop it.`
        : `Stopped after ${looked}. None found; that does not prove that there is none.`}{' '}
      {changed && 'The system has changed since it began. '}
      {openings && <OpeningsWords openings={openings} size={size} />}
    </Box>
  );
}

/** What opens a way: the thing to take out first, and the fixed thing that stands least far in the way. */
export function OpeningsWords({
  openings,
  size,
}: {
  readonly openings: readonly Opening[];
  readonly size: (value: number) => string;
}) {
  const first = openings.find(({ removable }) => removable);
  const fixed = openings.find(({ removable }) => !removable);
  if (!first && !fixed)
    return <>No single thing was found that opens one when it is away; ask what must come out first.</>;
  return (
    <>
      {first && (
        <>
          One opens with <b>{first.name}</b> out of the way first.{' '}
        </>
      )}
      {fixed && (
        <>
          {first ? 'Of what stays, ' : ''}
          <b>{fixed.name}</b> is in the way by {size(fixed.inTheWay_m)}.
        </>
      )}
    </>
  );
}
