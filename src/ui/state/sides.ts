'use client';

import { useCallback } from 'react';
import { sideText } from '@/core/plan';
import { useValue } from './editor';

export type Sides = (text: string) => string;

/** Turns a text of ours, never a builder's name, into one that names sides as the open system's vehicle does. */
export function useSides(): Sides {
  const kind = useValue((system) => system.vehicle.kind);
  return useCallback((text) => sideText(kind, text), [kind]);
}
