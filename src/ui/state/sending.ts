/** Comes after the numbers, as the page opens without it; until then, or where it cannot come, nothing is packed. */
let gzip: typeof import('fflate').gzipSync | undefined;
/** Fetches what packs large documents. */
export const loadPacking = (): Promise<void> =>
  import('fflate').then(
    ({ gzipSync }) => void (gzip = gzipSync),
    () => undefined,
  );

/** Bodies over this are sent small: they would wait in the way of the next save, and few may outlive their page. */
const PLAIN_BYTES = 32_000;
/**
 * A request that outlives its page may carry so much, together with all others
 * of the page, before the browser refuses it.
 * @source the Fetch standard, "HTTP-network-or-cache fetch": inflight keepalive bytes of 64 KiB
 */
const KEPT_ALIVE_BYTES = 60_000;

export type Sending = Pick<RequestInit, 'body' | 'keepalive'> & { readonly headers: Readonly<Record<string, string>> };

/** Whether a save of this document would still go out when its page is left. */
export const outlivesPage = (document: unknown): boolean => sendingOf(document).keepalive === true;

/**
 * A document as the body of a request: compressed where it is large, and outliving its page where a browser lets it.
 */
export function sendingOf(document: unknown): Sending {
  const text = JSON.stringify(document);
  const bytes = new TextEncoder().encode(text);
  if (bytes.length <= PLAIN_BYTES)
    return { body: text, keepalive: true, headers: { 'content-type': 'application/json' } };
  if (!gzip)
    return { body: text, keepalive: bytes.length <= KEPT_ALIVE_BYTES, headers: { 'content-type': 'application/json' } };
  const packed = gzip(bytes);
  return {
    body: packed as Uint8Array<ArrayBuffer>,
    keepalive: packed.length <= KEPT_ALIVE_BYTES,
    headers: { 'content-type': 'application/json', 'content-encoding': 'gzip' },
  };
}
