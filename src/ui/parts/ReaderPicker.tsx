'use client';

import type { ReaderSystem } from '@/core/units';
import { Select } from '../fields/Select';
import { useReaderStore } from '../state/reader';

const OPTIONS: readonly { value: ReaderSystem; label: string }[] = [
  { value: 'metric', label: 'mm, litres' },
  { value: 'us', label: 'inch, US gal' },
  { value: 'imperial', label: 'inch, imp gal' },
];

export function ReaderPicker() {
  const { reader, setReader } = useReaderStore();
  return <Select label="Units" hideLabel width="136px" value={reader} options={OPTIONS} onChange={setReader} />;
}
