'use client';

import { MAX_DOCUMENT_BYTES, parseSystemText, tooLarge, type Fault, type SystemDocument } from '@/core/document';
import { NOT_UTF8, plainName, utf8Text } from '@/core/formats';
import { MOST_COMPARED } from '../compare/chosen';

export type ListedSystem = { readonly id: string; readonly revision: number; readonly updatedAt_ms: number; readonly variantOf: string | null; readonly document: SystemDocument };

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

/** Files a document as a new system, or as a variant of one that is there. */
export async function createOnServer(document: SystemDocument, variantOf?: string): Promise<Made> {
  try {
    const response = await fetch(`/api/systems${variantOf === undefined ? '' : `?variantOf=${encodeURIComponent(variantOf)}`}`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(document) });
    if (!response.ok) return { ok: false, ...(await refusalOf(response)) };
    return { ok: true, id: ((await response.json()) as { id: string }).id };
  } catch {
    return { ok: false, ...silent };
  }
}

/** A name for a variant that tells it from the others: A boat, variant 2. */
export function variantName(name: string, taken: readonly string[]): string {
  const base = plainName(name.replace(/, variant \d+$/, ''), 66);
  let number = 2;
  while (taken.includes(`${base}, variant ${number}`)) number++;
  return `${base}, variant ${number}`;
}

async function listed(): Promise<readonly ListedSystem[]> {
  try {
    const response = await fetch('/api/systems');
    return response.ok ? ((await response.json()) as { systems: ListedSystem[] }).systems : [];
  } catch {
    return [];
  }
}

export const systemNames = async (): Promise<string[]> => (await listed()).map(({ document }) => document.name);

/** A system and up to two of its variants, the one they were forked from first; the asked-for one is always among them. */
export async function family(id: string): Promise<string[]> {
  const systems = await listed();
  const root = systems.find((system) => system.id === id)?.variantOf ?? id;
  const kin = systems.filter((system) => system.id === root || system.variantOf === root).map((system) => system.id);
  return [...new Set([...(kin.includes(root) ? [root] : []), id, ...kin])].slice(0, MOST_COMPARED);
}

/** Checks a chosen file here, before anything is sent. */
export async function importFile(file: File): Promise<Made> {
  if (file.size > MAX_DOCUMENT_BYTES) return { ok: false, detail: tooLarge(file.size), faults: [] };
  const text = utf8Text(new Uint8Array(await file.arrayBuffer()));
  if (text === undefined) return { ok: false, detail: NOT_UTF8, faults: [] };
  const parsed = parseSystemText(text);
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
