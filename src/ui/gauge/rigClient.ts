'use client';

import type { SystemDocument } from '@/core/plan';
import type { RigReading } from '@/core/gauge';

/** What a simulated rig says of itself when it starts, and of its truth when it ends. */
export type RigStarted = {
  readonly id: string;
  readonly tank: string;
  readonly sender: string;
  readonly signal: 'resistance' | 'voltage';
  readonly pulsesPerLitre: number;
  readonly span: number;
};
export type RigTruth = {
  readonly volume_ratio: number;
  readonly lowered_m: number;
  readonly meter_ratio: number;
  readonly sticksBelow_ratio: number;
  readonly diesAt_ratio: number | null;
};

type Answer<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly detail: string };

async function asked<T>(request: Promise<Response>): Promise<Answer<T>> {
  try {
    const response = await request;
    const body = (await response.json()) as T & { error?: { detail?: string } };
    return response.ok
      ? { ok: true, value: body }
      : { ok: false, detail: body.error?.detail ?? `The server answered ${response.status}.` };
  } catch {
    return { ok: false, detail: 'Gas Line’s server does not answer. Start it again with npm run demo.' };
  }
}

const JSON_HEADERS = { 'content-type': 'application/json' };

export const startRig = (
  system: SystemDocument,
  query: { readonly sender: string; readonly seed: number; readonly speed: number; readonly fault: string },
) =>
  asked<RigStarted>(
    fetch(
      `/api/rig?${new URLSearchParams(Object.entries(query).map(([key, value]) => [key, String(value)])).toString()}`,
      { method: 'POST', headers: JSON_HEADERS, body: JSON.stringify(system) },
    ),
  );
export const pourIntoRig = (id: string, volume_m3: number) =>
  asked<RigReading>(
    fetch(`/api/rig/${id}`, {
      method: 'POST',
      headers: JSON_HEADERS,
      body: JSON.stringify({ volume_m3, flow_m3PerS: 0.0005 }),
    }),
  );
export const endRig = (id: string) => asked<RigTruth>(fetch(`/api/rig/${id}`, { method: 'DELETE' }));
