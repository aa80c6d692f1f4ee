import { ValidationError } from 'yup';
import type { Outcome } from '../outcome';
import { migrate } from './migrations';
import { referenceFaults, type Fault } from './references';
import { FORMAT, systemSchema, type SystemDocument } from './schema';

export type DocumentCode = 'too-large' | 'not-json' | 'wrong-format' | 'wrong-version' | 'invalid';

export type DocumentFailure = {
  readonly code: DocumentCode;
  /** First fault's path, and one sentence. */
  readonly at: string;
  readonly detail: string;
  /** Every fault found, in document order. */
  readonly faults: readonly Fault[];
};

export type ParsedDocument = { readonly ok: true; readonly value: SystemDocument } | { readonly ok: false; readonly error: DocumentFailure };

/** A large system is some 100 kB; ten times that and more is not one. */
export const MAX_DOCUMENT_BYTES = 2_000_000;
const MAX_FAULTS = 50;

const refuse = (code: DocumentCode, at: string, detail: string, faults: readonly Fault[] = [{ path: at, message: detail }]): ParsedDocument => ({
  ok: false, error: { code, at, detail, faults },
});

/** Reads a system document from the text of a file. */
export function parseSystemText(text: string): ParsedDocument {
  if (text.length > MAX_DOCUMENT_BYTES) return refuse('too-large', 'file', tooLarge(text.length));
  let raw: unknown;
  try {
    raw = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch (error) {
    return refuse('not-json', 'file', `This is not a Gas Line system: the file is not JSON (${(error as Error).message}).`);
  }
  return parseSystem(raw);
}

export const tooLarge = (bytes: number): string =>
  `The file is ${(bytes / 1e6).toFixed(1)} MB; a system document has at most ${MAX_DOCUMENT_BYTES / 1e6} MB.`;

/** Checks an unknown value, brings it to the current version and returns it as a system document. */
export function parseSystem(raw: unknown): ParsedDocument {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) {
    return refuse('wrong-format', 'file', 'This is not a Gas Line system: the file must hold one JSON object.');
  }
  if ((raw as { format?: unknown }).format !== FORMAT) {
    return refuse('wrong-format', 'format', `This is not a Gas Line system: format must be "${FORMAT}".`);
  }
  const migrated: Outcome<Record<string, unknown>, 'wrong-version'> = migrate(raw as Record<string, unknown>);
  if (!migrated.ok) return refuse('wrong-version', migrated.error.at, migrated.error.detail);
  const faults = shapeFaults(migrated.value);
  if (faults.length > 0) return invalid(faults);
  const system = migrated.value as unknown as SystemDocument;
  const dangling = referenceFaults(system);
  return dangling.length > 0 ? invalid(dangling) : { ok: true, value: system };
}

function invalid(faults: readonly Fault[]): ParsedDocument {
  const first = faults[0]!;
  const more = faults.length > 1 ? ` There are ${faults.length - 1} more faults.` : '';
  return refuse('invalid', first.path, `${first.path} ${first.message}.${more}`, faults);
}

function shapeFaults(value: unknown): Fault[] {
  try {
    systemSchema.validateSync(value, { strict: true, abortEarly: false });
    return [];
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const inner = error.inner.length > 0 ? error.inner : [error];
    return inner.slice(0, MAX_FAULTS).map((fault) => ({ path: fault.path || 'file', message: ownMessage(fault) }));
  }
}

/** Yup's stock messages begin with the path or say "this"; ours do not. */
function ownMessage(fault: ValidationError): string {
  const text = fault.errors[0] ?? 'is not valid';
  return fault.path && text.startsWith(fault.path) ? text.slice(fault.path.length).trim() : text.replace(/^this /, '');
}
