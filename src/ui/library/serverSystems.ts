'use client';

import { MAX_DOCUMENT_BYTES, parseSystemText, tooLarge, type Fault, type SystemDocument } from '@/core/plan';
import type { Card } from '@/core/answers';
import { NOT_UTF8, plainName, utf8Text } from '@/core/formats';
import { MOST_COMPARED } from '../compare/chosen';
import { sendingOf } from '../state/sending';

export type ListedSystem = {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly updatedAt_ms: number;
  readonly variantOf: string | null;
} & (
  | {
      readonly readable: true;
      readonly description: string;
      readonly vehicle: SystemDocument['vehicle']['kind'];
      readonly consumer: SystemDocument['consumers'][number]['kind'] | null;
      /** As JSON; none where it was not worked out of this revision. */ readonly card: string | null;
    }
  | { readonly readable: false; readonly detail: string }
);
export type Listing = { readonly systems: readonly ListedSystem[]; /** Of all that match. */ readonly count: number };
type NamedSystem = { readonly id: string; readonly name: string; readonly variantOf: string | null };

export type Refusal = { readonly detail: string; readonly faults: readonly Fault[] };
type Made = { readonly ok: true; readonly id: string } | ({ readonly ok: false } & Refusal);

const silent: Refusal = { detail: 'Gas Line’s server does not answer. Start it again with npm run demo.', faults: [] };

async function refusalOf(response: Response): Promise<Refusal> {
  try {
    const body = (await response.json()) as { error?: { detail?: string; faults?: Fault[] } };
    return {
      detail: body.error?.detail ?? `The server answered ${response.status}.`,
      faults: body.error?.faults ?? [],
    };
  } catch {
    return { detail: `The server answered ${response.status}.`, faults: [] };
  }
}

/** Files a document as a new system, or as a variant of one that is there. */
export async function createOnServer(document: SystemDocument, variantOf?: string): Promise<Made> {
  const { headers, body } = sendingOf(document);
  const made = await asked<{ id: string }>(
    `/api/systems${variantOf === undefined ? '' : `?variantOf=${encodeURIComponent(variantOf)}`}`,
    { method: 'POST', headers, body: body! },
  );
  return made.ok ? { ok: true, id: made.body.id } : made;
}

/** A name for a variant that tells it from the others: A boat, variant 2. */
export function variantName(name: string, taken: readonly string[]): string {
  const base = plainName(name.replace(/, variant \d+$/, ''), 66);
  let number = 2;
  while (taken.includes(`${base}, variant ${number}`)) number++;
  return `${base}, variant ${number}`;
}

/** Something asked of the server; what it answers instead is a refusal. */
export async function asked<T>(
  path: string,
  init?: RequestInit,
): Promise<({ readonly ok: true } & { readonly body: T }) | ({ readonly ok: false } & Refusal)> {
  try {
    const response = await fetch(path, init);
    return response.ok
      ? { ok: true, body: (response.status === 204 ? undefined : await response.json()) as T }
      : { ok: false, ...(await refusalOf(response)) };
  } catch {
    return { ok: false, ...silent };
  }
}

/** A piece of the library, from a place on, of names that have a text in them. */
export async function listOnServer(
  from: number,
  having: string,
): Promise<({ readonly ok: true } & Listing) | ({ readonly ok: false } & Refusal)> {
  const found = await asked<Listing>(`/api/systems?${new URLSearchParams({ from: String(from), having }).toString()}`);
  return found.ok ? { ok: true, ...found.body } : found;
}

/** One system, whole. */
export async function systemOnServer(
  id: string,
): Promise<
  | { readonly ok: true; readonly document: SystemDocument; readonly revision: number }
  | ({ readonly ok: false } & Refusal)
> {
  const found = await asked<{ document: SystemDocument; revision: number }>(`/api/systems/${id}`);
  return found.ok ? { ok: true, ...found.body } : found;
}

/** Keeps what a card shows for whoever opens the library next; where that fails it is worked out again. */
/** Keeps a card beside the system that it was worked out of; the server refuses one of another. */
export const keepCardOnServer = (
  id: string,
  revision: number,
  { conditions }: Pick<SystemDocument, 'conditions'>,
  card: Card,
) =>
  asked(`/api/systems/${id}/card`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json', 'if-match': String(revision) },
    body: JSON.stringify({ card, conditions }),
  });

async function named(): Promise<readonly NamedSystem[]> {
  const found = await asked<{ systems: NamedSystem[] }>('/api/systems/names');
  return found.ok ? found.body.systems : [];
}

export const systemNames = async (): Promise<string[]> => (await named()).map(({ name }) => name);

/**
 * A system and up to two of its variants, the one they were forked from first; the asked-for one is always among them.
 */
export async function family(id: string): Promise<string[]> {
  const systems = await named();
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
  const done = await asked(path, { method });
  return done.ok ? undefined : done;
}

export const deleteOnServer = (id: string): Promise<Refusal | undefined> => send(`/api/systems/${id}`, 'DELETE');
export const restoreOnServer = (id: string): Promise<Refusal | undefined> => send(`/api/systems/${id}/restore`, 'POST');
