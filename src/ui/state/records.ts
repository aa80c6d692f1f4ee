'use client';

import type { PourLine } from '@/core/formats';
import { withRecords, type PourDocument, type SystemDocument } from '@/core/plan';
import { useEditor } from './editor';

/** An id that no other page makes too: records of several devices go together by it. */
function recordId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(12));
  return `r-${[...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('')}`;
}

/** A line of a calibration's log, as it is written down now. */
export const pourRecord = (calibration: string, line: PourLine): PourDocument => ({
  id: recordId(),
  recorded: new Date().toISOString(),
  kind: 'pour',
  of: calibration,
  ...line,
});

/** Another record that stands for one from now on; what was written first stays. */
export const corrected = (record: PourDocument, change: Partial<PourLine>): PourDocument => ({
  ...record,
  ...change,
  id: recordId(),
  recorded: new Date().toISOString(),
  corrects: record.id,
});

/** Adds to the records of the open system; that is no step of undo. */
export function writeDown(added: readonly PourDocument[]): void {
  const { system } = useEditor.getState();
  if (system) useEditor.setState({ system: withRecords(system, added) as SystemDocument });
}
