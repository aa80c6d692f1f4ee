import { CONDITIONS_HELP, loadSystem, UsageError } from './args';
import { check } from './check';
import { DATA_VERBS, type DataVerb } from './data';
import { fit } from './fit';
import { flow } from './flow';
import { gauge } from './gauge';
import { mass } from './mass';
import { mounts } from './mounts';
import { ports } from './ports';
import { range } from './range';
import { simulate } from './simulate';
import { vents } from './vents';
import { table } from './table';
import { tank } from './tank';
import { runVerb, type Beside, type Verb } from './verb';

export const VERBS: readonly Verb[] = [
  tank,
  table,
  mass,
  mounts,
  fit,
  ports,
  flow,
  gauge,
  range,
  vents,
  simulate,
  check,
];

const GENERAL_HELP = `npm run -s gasline -- VERB SYSTEM-FILE [options]

Computes a Gas Line system without a browser and prints JSON in SI units; each
key names its unit. Exit 0, or 2 with what is wrong on stderr.

${VERBS.map((verb) => `  ${verb.name.padEnd(8)} ${verb.summary}`).join('\n')}

All the data together, in the folder GASLINE_DATA or data:
${DATA_VERBS.map((verb) => `  ${verb.name.padEnd(8)} ${verb.summary}\n           ${verb.takes}`).join('\n')}

Options:
${CONDITIONS_HELP}
  --help               this, or with a verb what that verb prints
`;

const verbHelp = (verb: Verb): string => `npm run -s gasline -- ${verb.name} SYSTEM-FILE [options]

${verb.summary}.
Prints ${verb.prints}.

Options:
${[...Object.entries(verb.options ?? {}).map(([name, help]) => `  --${name.padEnd(18)} ${help}`), CONDITIONS_HELP].join('\n')}
`;

/** Runs one command line; comes to the exit code, later where it is about all the data. */
export function main(
  args: readonly string[],
  out: (text: string) => void,
  err: (text: string) => void,
  beside?: Beside,
): number | Promise<number> {
  const [name, ...rest] = args;
  const verb = VERBS.find((candidate) => candidate.name === name);
  if (args.includes('--help') || args.length === 0) {
    out(verb ? verbHelp(verb) : GENERAL_HELP);
    return args.length === 0 ? 2 : 0;
  }
  const whole = DATA_VERBS.find((candidate) => candidate.name === name);
  if (!verb && !whole) {
    err(
      `There is no verb "${name}"; there is ${[...VERBS, ...DATA_VERBS].map((candidate) => candidate.name).join(', ')}.`,
    );
    return 2;
  }
  if (whole) return aboutAll(whole, rest, out, err);
  try {
    if (!verb) return 2;
    const { system, own } = loadSystem(rest, Object.keys(verb.options ?? {}));
    out(JSON.stringify(runVerb(verb, system, own, beside), null, 2));
    return 0;
  } catch (error) {
    if (!(error instanceof UsageError)) throw error;
    err(error.message);
    return 2;
  }
}

/** A verb about all the data. */
async function aboutAll(
  verb: DataVerb,
  rest: readonly string[],
  out: (text: string) => void,
  err: (text: string) => void,
): Promise<number> {
  try {
    if (rest.length > 1) throw new UsageError(`One file at a time; "${rest.slice(1).join(' ')}" is left over.`);
    out(JSON.stringify(await verb.run(rest[0], Date.now()), null, 2));
    return 0;
  } catch (error) {
    if (!(error instanceof UsageError)) throw error;
    err(error.message);
    return 2;
  }
}
