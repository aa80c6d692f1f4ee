'use client';

import { useState } from 'react';
import type { Path } from '@/core/plan';
import { addedTo } from '../parts/added';
import { usePlace } from './goTo';

/**
 * Which entry of a list is looked at: the one that was chosen, that one was led to, or that was added last; the first
 * to begin with.
 */
export function useEntry(
  entries: readonly { readonly id: string }[],
  list: Path,
): readonly [index: number, choose: (index: number) => void] {
  const [chosen, setChosen] = useState<string>();
  const { path, asked } = usePlace();
  const prefix = `${list.join('.')}.`;
  const ids = entries.map(({ id }) => id);
  const [before, setBefore] = useState(ids);
  if (ids.join() !== before.join()) {
    setBefore(ids);
    const added = addedTo(before, ids);
    if (added !== undefined) setChosen(added);
  }
  const [followed, setFollowed] = useState(0);
  if (asked !== followed) {
    setFollowed(asked);
    if (path?.startsWith(prefix)) setChosen(ids[Number(path.slice(prefix.length).split('.')[0])]);
  }
  return [Math.max(0, chosen === undefined ? 0 : ids.indexOf(chosen)), (index) => setChosen(ids[index])];
}
