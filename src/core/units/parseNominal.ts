import { failure, success, type Outcome } from '../outcome';
import { GAUGE_TABLES, gaugeThickness_m, type SheetMetal } from '../reference/sheetGauges';
import { LINE_SIZES, lineSize, type LineKind } from '../reference/lineSizes';
import type { Quantity } from './quantity';

export type NominalCode = 'no-metal' | 'no-such-gauge' | 'no-such-size' | 'size-not-here';

export type NominalField = { readonly metal?: SheetMetal; readonly line?: LineKind };

const GAUGE = /^(\d{1,2})\s*(?:ga|gauge|ga\.)$/i;
const DASH = /^(?:an\s*)?-\s*(\d{1,2})(?:\s*an)?$|^an\s*(\d{1,2})$/i;
const PIPE = /^(\d+(?:[ -]\d+\/\d+)?|\d+\/\d+)\s*"?\s*(?:-\s*\d+(?:\.\d+)?\s*)?(npt|nptf|bsp|bspp|bspt|pipe)$/i;

/**
 * Sizes that are names, not measurements: sheet gauge, dash number, pipe size.
 * Returns undefined when the text is none of them.
 */
export function parseNominal(text: string, field: NominalField): Outcome<Quantity, NominalCode> | undefined {
  const gauge = GAUGE.exec(text);
  if (gauge) return readGauge(text, Number(gauge[1]), field.metal);
  const dash = DASH.exec(text);
  if (dash && (field.line || /an/i.test(text))) return readDash(text, Number(dash[1] ?? dash[2]), field.line);
  const pipe = PIPE.exec(text);
  if (pipe) return readPipe(text, pipe[1]!.replace('-', ' '), pipe[2]!.toUpperCase(), field.line);
  return undefined;
}

function readGauge(text: string, gauge: number, metal: SheetMetal | undefined): Outcome<Quantity, NominalCode> {
  if (!metal) {
    return failure(
      'no-metal',
      text,
      'A gauge number means another thickness in each metal and this field has none; write mm or in.',
    );
  }
  const si = gaugeThickness_m(metal, gauge);
  if (si === undefined) {
    const known = Object.keys(GAUGE_TABLES[metal].thickness_in);
    return failure(
      'no-such-gauge',
      text,
      `There is no ${gauge} ga in the ${metal} table; it runs from ${known[0]} to ${known.at(-1)}.`,
    );
  }
  return success({ si, reading: `${gauge} ga ${metal}`, nominal: true });
}

function readDash(text: string, dash: number, line: LineKind | undefined): Outcome<Quantity, NominalCode> {
  if (line !== 'hose' && line !== 'tube') {
    return failure('size-not-here', text, 'A dash size belongs to a hose or a tube; write the bore in mm or in here.');
  }
  return readSize(text, line, `-${dash}`, `dash ${dash} ${line}`);
}

function readPipe(
  text: string,
  name: string,
  thread: string,
  line: LineKind | undefined,
): Outcome<Quantity, NominalCode> {
  if (!line)
    return failure('size-not-here', text, 'A pipe-thread size is not a length; write the measured size in mm or in.');
  return readSize(text, 'pipe', name, `${name} ${thread}, schedule 40 pipe bore`);
}

function readSize(text: string, kind: LineKind, name: string, reading: string): Outcome<Quantity, NominalCode> {
  const size = lineSize(kind, name);
  if (size) return success({ si: size.bore_m, reading, nominal: true });
  const known = LINE_SIZES.filter((candidate) => candidate.kind === kind).map((candidate) => candidate.name);
  return failure('no-such-size', text, `There is no ${kind} size ${name} in the table; it has ${known.join(', ')}.`);
}
