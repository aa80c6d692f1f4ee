'use client';

import type { ReaderSystem } from '@/core/units';
import { Select } from '../fields/Select';
import { useReaderStore } from '../state/reader';

export const READERS: readonly { value: ReaderSystem; label: string }[] = [
  { value: 'metric', label: 'mm, litres' },
  { value: 'us', label: 'inch, US gal' },
  { value: 'imperial', label: 'inch, imp gal' },
];

export function ReaderPicker() {
  const { reader, setReader } = useReaderStore();
  return <Select label="Units" hideLabel width="136px" value={reader} options={READERS} onChange={setReader} />;
}
