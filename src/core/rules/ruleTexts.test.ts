import { expect, it } from 'vitest';
import { inReaderUnits } from '../units';
import { RULES } from '.';

it('what rules say never leaves a reader in inches with millimetres, litres or pascals', () => {
  const metric = /\d[\d.]* ?(mm|cm|cm²|m|L|mL|litres?|Pa|kPa|bar|kg|m\/s|°C)(?![\w/²])/;
  const left = RULES.flatMap(({ id, title, why, mend }) =>
    [title, why, mend].flatMap((text) => (metric.test(inReaderUnits(text, 'us')) ? [`${id}: ${text}`] : [])),
  );
  expect(left).toEqual([]);
});

it('every quantity in them is one that is written out', () => {
  for (const { id, why, mend } of RULES)
    for (const text of [why, mend]) expect(inReaderUnits(text, 'us'), id).not.toMatch(/[{}]/);
});
