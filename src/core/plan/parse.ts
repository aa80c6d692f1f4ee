import type { AnySchema } from 'yup';
import { readJson } from '../formats';
import type { Outcome } from '../outcome';
import { migrate } from './migrations';
import { referenceFaults, type Fault } from './references';
import { FORMAT, systemSchema, type SystemDocument } from './schema';
import { schemaFaults } from './schemaFaults';

export type DocumentCode = 'too-large' | 'not-json' | 'wrong-format' | 'wrong-version' | 'invalid';

export type DocumentFailure = {
  readonly code: DocumentCode;
  /** First fault's path, and one sentence. */
  readonly at: string;
  readonly detail: string;
  /** The faults found, in document order; no more than 50 are worked out. */
  readonly faults: readonly Fault[];
};

export type ParsedDocument =
  { readonly ok: true; readonly value: SystemDocument } | { readonly ok: false; readonly error: DocumentFailure };

/** A large system is some 100 kB; ten times that and more is not one. */
export const MAX_DOCUMENT_BYTES = 2_000_000;
const MAX_FAULTS = 50;

const refuse = (
  code: DocumentCode,
  at: string,
  detail: string,
  faults: readonly Fault[] = [{ path: at, message: detail }],
): ParsedDocument => ({ ok: false, error: { code, at, detail, faults } });

const bytesOf = (text: string): number => new TextEncoder().encode(text).length;

/** Why a system that was put together here would be refused when it is saved; undefined where it would be taken. */
export function unsavable(system: SystemDocument): string | undefined {
  const bytes = bytesOf(JSON.stringify(system));
  if (bytes > MAX_DOCUMENT_BYTES) return tooLarge(bytes);
  const parsed = parseSystem(system);
  return parsed.ok ? undefined : parsed.error.detail;
}

/** Reads a system document from the text of a file. */
export function parseSystemText(text: string): ParsedDocument {
  const bytes = bytesOf(text);
  if (bytes > MAX_DOCUMENT_BYTES) return refuse('too-large', 'file', tooLarge(bytes));
  const raw = readJson(text);
  return raw.ok
    ? parseSystem(raw.value)
    : refuse(
        'not-json',
        raw.error.at,
        raw.error.code === 'not-json'
          ? `This is not a Gas Line system: the file is not JSON (${raw.error.detail}).`
          : `The file cannot be taken. ${raw.error.detail}`,
      );
}

/** What is said of a document of too many bytes. */
export const tooLarge = (bytes: number): string =>
  `The system is ${(bytes / 1e6).toFixed(1)} MB; a system document has at most ${MAX_DOCUMENT_BYTES / 1e6} MB.`;

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
  const faults = schemaFaults(systemSchema as unknown as AnySchema, migrated.value, MAX_FAULTS);
  if (faults.length > 0) return invalid(faults);
  const system = migrated.value as unknown as SystemDocument;
  const dangling = referenceFaults(system).slice(0, MAX_FAULTS);
  return dangling.length > 0 ? invalid(dangling) : { ok: true, value: system };
}

function invalid(faults: readonly Fault[]): ParsedDocument {
  const first = faults[0]!;
  const more =
    faults.length > 1
      ? ` There ${faults.length === 2 ? 'is 1 more fault' : `are ${faults.length === MAX_FAULTS ? 'at least ' : ''}${faults.length - 1} more faults`}.`
      : '';
  return refuse('invalid', first.path, `${first.path} ${first.message}.${more}`, faults);
}
