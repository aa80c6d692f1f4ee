import { parseArgs } from 'node:util';
import { editToNumbers } from './editToNumbers';
import { cliCheck, cliTank } from './cli';
import { firstLoadJs, openToNumbers } from './opening';
import { editToSettled, tiltToNumbers } from './settling';
import { attitudeMap61 } from './attitudeMap';
import { clearance20 } from './clearance';
import { body60k } from './bodies';
import { checkLarge, home500, openLarge, save1500k } from './library';
import { fitChance } from './fitChance';
import { fitKinks } from './fitKinks';
import { fitSurvey } from './fitSurvey';
import { volumeQuery } from './volumeQuery';
import { networkBenches } from './network';
import { kernelGain } from './kernelGain';
import { networkFuzz } from './networkFuzz';
import { pourCoverage, pourSlips } from './pours';
import { day12h, fillStiff, odePeer, timeLines } from './overTime';
import { wayOutSnow, wayScenesFound } from './wayOut';
import type { Bench } from './measure';

/** `npm run bench [-- --json] [-- --only NAME]`. To add one, add it to this list. */
const BENCHES: readonly Bench[] = [
  editToNumbers,
  tiltToNumbers,
  editToSettled,
  openToNumbers,
  firstLoadJs,
  cliTank,
  cliCheck,
  volumeQuery,
  attitudeMap61,
  clearance20,
  wayOutSnow,
  wayScenesFound,
  fitChance,
  fitKinks,
  fitSurvey,
  ...networkBenches,
  kernelGain,
  networkFuzz,
  body60k,
  home500,
  save1500k,
  openLarge,
  checkLarge,
  pourSlips,
  pourCoverage,
  day12h,
  fillStiff,
  odePeer,
  timeLines,
];

async function main(): Promise<number> {
  const { values } = parseArgs({ options: { json: { type: 'boolean' }, only: { type: 'string' } } });
  const chosen = BENCHES.filter((bench) => values.only === undefined || bench.name === values.only);
  if (chosen.length === 0) {
    console.error(`There is no benchmark "${values.only}"; there is ${BENCHES.map((bench) => bench.name).join(', ')}.`);
    return 2;
  }
  for (const bench of chosen) {
    const measured = await bench.run();
    console.log(
      values.json
        ? JSON.stringify(measured)
        : `${measured.met ? 'met   ' : 'MISSED'} ${measured.name}: ${measured.value} ${measured.unit} (goal ${measured.goal}; ${measured.reference})`,
    );
  }
  return 0;
}

main().then(
  (code) => process.exit(code),
  (error: unknown) => {
    console.error(error);
    process.exit(1);
  },
);
