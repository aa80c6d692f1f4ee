'use client';

import type { FlowResult, LineAnswers } from '@/core/answers';
import { useDrawnSystem } from './editor';
import { useDetails } from './results';

/** The flows to all consumers that have one. */
export function useFlows(): readonly FlowResult[] {
  const { results } = useDetails();
  return results?.ok ? results.evaluation.flows.flatMap((flow) => (flow.ok ? [flow.value] : [])) : [];
}

/** What was worked out of the lines last, and whether it belongs to the document on screen. */
export function useLines(): { readonly lines: LineAnswers | undefined; readonly fresh: boolean } {
  const open = useDrawnSystem();
  const { system, results } = useDetails();
  return { lines: results?.ok ? results.evaluation.lines : undefined, fresh: system === open };
}
