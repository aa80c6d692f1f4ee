'use client';

import { create } from 'zustand';
import type { ComponentDocument } from '@/core/plan';

export type OwnPart = { readonly id: string; readonly name: string; readonly part: ComponentDocument };

/** Kept by another version of the app: not lost, and not shown as a part. */
export type UnreadPart = { readonly id: string; readonly name: string; readonly detail: string };

type Catalogue = {
  readonly parts: readonly OwnPart[];
  readonly unread: readonly UnreadPart[];
  readonly loaded: boolean;
  readonly refused: string | undefined;
};

/** The builder's own parts, as the server has them. */
export const useCatalogue = create<Catalogue>()(() => ({ parts: [], unread: [], loaded: false, refused: undefined }));

const SILENT = 'Gas Line’s server does not answer. Start it again with npm run demo.';

export async function loadCatalogue(): Promise<void> {
  try {
    const response = await fetch('/api/parts');
    const { parts, unread } = (await response.json()) as { parts: OwnPart[]; unread: UnreadPart[] };
    useCatalogue.setState({ parts, unread, loaded: true, refused: undefined });
  } catch {
    useCatalogue.setState({ refused: SILENT });
  }
}

async function asked(method: 'POST' | 'DELETE', path: string, body?: unknown): Promise<void> {
  try {
    const response = await fetch(path, {
      method,
      headers: { 'content-type': 'application/json' },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    if (response.ok) return await loadCatalogue();
    const refusal = (await response.json()) as { error?: { detail?: string } };
    useCatalogue.setState({ refused: refusal.error?.detail ?? `The server answered ${response.status}.` });
  } catch {
    useCatalogue.setState({ refused: SILENT });
  }
}

export const keepPart = (part: ComponentDocument): Promise<void> => asked('POST', '/api/parts', { part });
export const takeInCsv = (csv: string): Promise<void> => asked('POST', '/api/parts', { csv });
export const dropPart = (id: string): Promise<void> => asked('DELETE', `/api/parts/${encodeURIComponent(id)}`);
