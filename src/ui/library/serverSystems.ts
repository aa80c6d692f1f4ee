'use client';

import { MAX_DOCUMENT_BYTES, parseSystemText, tooLarge, type Fault, type SystemDocument } from '@/core/document';

export type ListedSystem = { readonly id: string; readonly revision: number; readonly updatedAt_ms: number; readonly document: SystemDocument };

export type Refusal = { readonly detail: string; readonly faults: readonly Fault[] };
type Made = { readonly ok: true; readonly id: string } | ({ readonly ok: false } & Refusal);

const silent: Refusal = { detail: 'Gas Line’s server does not answer. Start it again with npm run demo.', faults: [] };

async function refusalOf(response: Response): Promise<Refusal> {
  try {
    const body = (await response.json()) as { error?: { detail?: string; faults?: Fault[] } };
    return { detail: body.error?.detail ?? `The server answered ${response.status}.`, faults: body.error?.faults ?? [] };
  } catch {
    return { detail: `The server answered ${response.status}.`, faults: [] };
  }
}

export async function createOnServer(document: SystemDocument): Promise<Made> {
  try {
    const response = await fetch('/api/systems', { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(document) });
    if (!response.ok) return { ok: false, ...(await refusalOf(response)) };
    return { ok: true, id: ((await response.json()) as { id: string }).id };
  } catch {
    return { ok: false, ...silent };
  }
}

/** Checks a chosen file here, before anything is sent. */
export async function importFile(file: File): Promise<Made> {
  if (file.size > MAX_DOCUMENT_BYTES) return { ok: false, detail: tooLarge(file.size), faults: [] };
  const parsed = parseSystemText(await file.text());
  if (!parsed.ok) return { ok: false, detail: parsed.error.detail, faults: parsed.error.faults };
  return createOnServer(parsed.value);
}

async function send(path: string, method: string): Promise<Refusal | undefined> {
  try {
    const response = await fetch(path, { method });
    return response.ok ? undefined : await refusalOf(response);
  } catch {
    return silent;
  }
}

export const deleteOnServer = (id: string): Promise<Refusal | undefined> => send(`/api/systems/${id}`, 'DELETE');
export const restoreOnServer = (id: string): Promise<Refusal | undefined> => send(`/api/systems/${id}/restore`, 'POST');
