import { ValidationError } from 'yup';
import { MAX_DOCUMENT_BYTES, parseSystemText, tooLarge, type Fault, type SystemDocument } from '@/core/plan';
import { NOT_UTF8, readJson } from '@/core/formats';
import { turnedAway } from './gate';

export type ErrorBody = {
  readonly error: { readonly code: string; readonly detail: string; readonly faults?: readonly Fault[] };
};

export const refuse = (status: number, code: string, detail: string, faults?: readonly Fault[]): Response =>
  Response.json({ error: { code, detail, ...(faults ? { faults } : {}) } } satisfies ErrorBody, { status });

/** The door's own check, once more. */
export function refusedOrigin(request: Request): Response | undefined {
  const { pathname, search } = new URL(request.url);
  const turned = turnedAway({
    method: request.method,
    url: pathname + search,
    header: (name) => request.headers.get(name) ?? undefined,
  });
  return turned && refuse(turned.status, turned.code, turned.detail);
}

/** A header that was percent-encoded; undefined where it is not whole. */
export function decodedHeader(request: Request, name: string): string | undefined {
  const value = request.headers.get(name);
  try {
    return value === null ? undefined : decodeURIComponent(value);
  } catch {
    return undefined;
  }
}

/**
 * What of the data file's troubles a builder can do something about, by SQLite's own code. @source SQLite, "Result and
 * Error Codes"
 */
const STORE_TROUBLES: readonly (readonly [code: string, status: number, detail: string])[] = [
  ['SQLITE_BUSY', 503, 'Another program holds the data file and does not let go of it. Close it, then save again.'],
  ['SQLITE_LOCKED', 503, 'The data file is in use. Save again in a moment.'],
  [
    'SQLITE_FULL',
    507,
    'The disk is full: nothing was saved, and what was saved before is untouched. Make room, then save again.',
  ],
  ['SQLITE_READONLY', 507, 'The data file cannot be written to: nothing was saved. Look at the rights of its folder.'],
  ['SQLITE_CANTOPEN', 507, 'The data file cannot be opened. Look at its folder.'],
  [
    'SQLITE_IOERR',
    507,
    'The disk could not be read or written: nothing was saved. Look at the disk, and keep a copy by Export.',
  ],
  ['SQLITE_CORRUPT', 500, 'The data file is damaged. What is open can be kept by Export.'],
  ['SQLITE_NOTADB', 500, 'The data file is no data file of Gas Line. What is open can be kept by Export.'],
];

function troubleOf(error: unknown): Response {
  const code = error instanceof Error && 'code' in error ? String(error.code) : '';
  const known = STORE_TROUBLES.find(([begins]) => code.startsWith(begins));
  if (known) return refuse(known[1], 'not-stored', known[2]);
  console.error(error);
  return refuse(
    500,
    'broken',
    'Gas Line’s server could not do that, for a reason that it does not know; its window says more.',
  );
}

type Handler<Context> = (request: Request, context: Context) => Response | Promise<Response>;

/**
 * A route that lets in only what the door lets in, answers with JSON and a sentence whatever happens in it, and is kept
 * by nobody on the way.
 */
export const answering =
  <Context>(handler: Handler<Context>): Handler<Context> =>
  async (request, context) => {
    try {
      const response = refusedOrigin(request) ?? (await handler(request, context));
      if (!response.headers.has('cache-control')) response.headers.set('cache-control', 'no-store');
      return response;
    } catch (error) {
      return troubleOf(error);
    }
  };

/** A route for the machine that Gas Line runs on alone; the server tells which door a request came in by. */
export const hereOnly = <Context>(handler: Handler<Context>): Handler<Context> =>
  answering((request: Request, context: Context) =>
    request.headers.get('x-gasline-door') === 'network'
      ? refuse(403, 'only-here', 'That can be done only on the machine that Gas Line runs on.')
      : handler(request, context),
  );

/** Body text, or a refusal once it passes the limit; never reads much past it. */
export async function bodyText(
  request: Request,
): Promise<{ ok: true; text: string } | { ok: false; response: Response }> {
  if (!(request.headers.get('content-type') ?? '').startsWith('application/json')) {
    return { ok: false, response: refuse(415, 'not-json', 'Send application/json.') };
  }
  const announced = Number(request.headers.get('content-length') ?? 0);
  if (announced > MAX_DOCUMENT_BYTES) return { ok: false, response: refuse(413, 'too-large', tooLarge(announced)) };
  const encoding = request.headers.get('content-encoding') ?? 'identity';
  if (encoding !== 'identity' && encoding !== 'gzip')
    return {
      ok: false,
      response: refuse(415, 'not-gzip', `Send it as it is or by gzip; it came by ${encoding.slice(0, 40)}.`),
    };
  // What is packed small may be large: the limit is on what comes out.
  const body =
    encoding === 'gzip'
      ? request.body?.pipeThrough(new DecompressionStream('gzip') as ReadableWritablePair<Uint8Array, Uint8Array>)
      : request.body;
  const reader = body?.getReader();
  const decoder = new TextDecoder('utf-8', { fatal: true });
  let text = '';
  let bytes = 0;
  try {
    for (let chunk = await reader?.read(); chunk && !chunk.done; chunk = await reader?.read()) {
      bytes += chunk.value.byteLength;
      if (bytes > MAX_DOCUMENT_BYTES) {
        await reader?.cancel();
        return { ok: false, response: refuse(413, 'too-large', tooLarge(bytes)) };
      }
      text += decoder.decode(chunk.value, { stream: true });
    }
    text += decoder.decode();
  } catch (error) {
    if (error instanceof TypeError && error.message.includes('encoded data'))
      return { ok: false, response: refuse(400, 'not-utf8', NOT_UTF8) };
    return {
      ok: false,
      response: refuse(
        400,
        'broken-body',
        encoding === 'gzip' ? 'What came is not whole gzip.' : 'What came broke off.',
      ),
    };
  }
  return { ok: true, text };
}

/** JSON from a request's body, or the refusal to send back. */
export async function bodyJson(
  request: Request,
  wants: string,
): Promise<{ ok: true; value: unknown } | { ok: false; response: Response }> {
  const body = await bodyText(request);
  if (!body.ok) return body;
  const read = readJson(body.text);
  return read.ok
    ? read
    : {
        ok: false,
        response: refuse(
          422,
          read.error.code,
          `${read.error.code === 'not-json' ? 'The body is not JSON.' : read.error.detail} Send ${wants}.`,
        ),
      };
}

/** A system document from a request's body, or the refusal to send back. */
export async function bodySystem(
  request: Request,
): Promise<{ ok: true; document: SystemDocument } | { ok: false; response: Response }> {
  const body = await bodyText(request);
  if (!body.ok) return body;
  const parsed = parseSystemText(body.text);
  if (parsed.ok) return { ok: true, document: parsed.value };
  const { code, detail, faults } = parsed.error;
  return { ok: false, response: refuse(code === 'too-large' ? 413 : 422, code, detail, faults) };
}

/** Parsed, or what is wrong in one sentence. */
export function checked<T>(
  read: () => T,
): { readonly ok: true; readonly value: T } | { readonly ok: false; readonly detail: string } {
  try {
    return { ok: true, value: read() };
  } catch (error) {
    if (error instanceof ValidationError)
      return { ok: false, detail: `${error.errors.slice(0, 8).join('; ').slice(0, 600)}.` };
    throw error;
  }
}
