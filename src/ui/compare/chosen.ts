import type { SystemDocument } from '@/core/plan';

/** Side by side on one screen. */
export const MOST_COMPARED = 3;

/** What can be chosen, and what is: variants of one system share the one they were forked from. */
export type Listed = { readonly id: string; readonly variantOf: string | null; readonly name: string };
export type Chosen = { readonly id: string; readonly variantOf: string | null; readonly document: SystemDocument };
