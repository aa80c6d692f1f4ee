'use client';

const LOCK = 'gasline-page ';
let id: string | undefined;

/** This page among all pages of this browser; another after every load. */
export function tabId(): string {
  if (id === undefined) {
    id = `${Date.now().toString(36)}-${Math.random().toString(36).slice(2, 10)}`;
    // Held until the page is gone, however it goes. Browsers have locks only where an address counts as safe.
    void navigator.locks?.request(LOCK + id, () => new Promise(() => undefined));
  }
  return id;
}

/** The pages of this browser that are still there; this one at least. */
export async function tabsAlive(): Promise<ReadonlySet<string>> {
  const held = (await navigator.locks?.query())?.held ?? [];
  return new Set([tabId(), ...held.flatMap(({ name }) => (name?.startsWith(LOCK) ? [name.slice(LOCK.length)] : []))]);
}
