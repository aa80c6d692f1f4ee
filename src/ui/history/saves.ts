'use client';

import type { SystemDocument } from '@/core/plan';
import { asked } from '../library/serverSystems';

/** One save of a system, as a list of them tells it. */
export type Revision = {
  readonly revision: number;
  /** Name of the edit that led to it. */
  readonly edit: string;
  readonly name: string | null;
  readonly savedAt_ms: number;
};

const at = (id: string, revision: number): string => `/api/systems/${id}/revisions/${revision}`;
const JSON_BODY = { 'content-type': 'application/json' };

/** What a system was at one of its saves. */
export const saveOnServer = (id: string, revision: number) => asked<{ document: SystemDocument }>(at(id, revision));

/** Names a save, by which it is kept for good; an empty name takes it away. */
export const nameSave = (id: string, revision: number, name: string) =>
  asked(at(id, revision), { method: 'PUT', headers: JSON_BODY, body: JSON.stringify({ name }) });

/** Makes an earlier save the present one, as a new save after the one that is seen here as the latest. */
export const restoreSave = (id: string, revision: number, from: number) =>
  asked<{ revision: number }>(`${at(id, revision)}/restore`, {
    method: 'POST',
    headers: { ...JSON_BODY, 'if-match': String(from) },
  });
