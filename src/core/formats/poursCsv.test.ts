import { describe, expect, it } from 'vitest';
import { poursCsv, readPoursCsv, type PourLine } from '.';

const LINE: PourLine = {
  at: '2026-05-03T14:30:00Z',
  way: 'can',
  added_m3: 0.005,
  spread_m3: 0.00005,
  reading: { kind: 'resistance', reading_ohm: 212.5 },
  note: 'first can, "full"',
  state: 'counts',
  simulated: false,
};

const read = (text: string): readonly PourLine[] => {
  const outcome = readPoursCsv(text);
  if (!outcome.ok) throw new Error(outcome.error.detail);
  return outcome.value.lines;
};
const refused = (text: string): { code: string; at: string; detail: string } => {
  const outcome = readPoursCsv(text);
  if (outcome.ok) throw new Error('was taken');
  return outcome.error;
};

describe('a log of pours as CSV', () => {
  it('goes out and comes in unchanged', () => {
    const lines: PourLine[] = [
      LINE,
      { ...LINE, way: 'drawn-off', added_m3: -0.001, reading: { kind: 'voltage', reading_V: 1.25 } },
      { ...LINE, reading: { kind: 'needle', shown_ratio: 0.37 }, state: 'spilt' },
      { ...LINE, reading: { kind: 'height', height_m: 0.128 }, note: '=1+1', simulated: true },
      { ...LINE, at: '', reading: { kind: 'none' }, state: 'entry-struck' },
    ];
    expect(read(poursCsv(lines))).toEqual(lines);
  });

  it('hands no formula to a spreadsheet', () => {
    expect(poursCsv([{ ...LINE, note: '=HYPERLINK("x")' }])).toContain("'=HYPERLINK");
  });

  it('a byte-order mark, semicolons and decimal commas', () => {
    expect(read('\uFEFFtime;added_L;reading;unit\r\n2026-05-03 14:30;5,0;212,5;ohm\r\n')).toEqual([
      { ...LINE, at: '2026-05-03 14:30', spread_m3: 0.00005, note: '' },
    ]);
  });

  it('decimal commas in quotes, US gallons, columns in any order and case, empty rows between', () => {
    const [line] = read('Unit,READING,added_us_gal\n\nV,"2,5","1,5"\n');
    expect(line).toMatchObject({ reading: { kind: 'voltage', reading_V: 2.5 } });
    expect(line!.added_m3).toBeCloseTo(1.5 * 3.785411784e-3, 12);
  });

  it.each([
    ['nothing', '', 'empty', 'file', /heading/],
    ['a heading alone', 'added_L,reading,unit\n', 'empty', 'file', /row for each pour/],
    ['no column of volume', 'time,litres\n1,2\n', 'no-columns', 'row 1', /added_L.*time, litres/],
    ['a reading without unit', 'added_L,reading\n5,212\n', 'no-columns', 'row 1', /unit/],
    [
      'a decimal comma among commas',
      'added_L,reading,unit\n5,0,212,ohm\n',
      'bad-rows',
      'row 2',
      /4 cells where the heading has 3; numbers with a decimal comma/,
    ],
    ['words for a number', 'added_L,reading,unit\nfive,212,ohm\n', 'bad-rows', 'row 2', /"five".*not a number/],
    [
      'points and commas in one file',
      'added_L;reading;unit\n1.000,5;212;ohm\n',
      'two-marks',
      'file',
      /both points and commas.*1\.000,5/,
    ],
    ['what may be one or a thousand', 'added_L;reading;unit\n"1,000";212;ohm\n', 'unclear-mark', 'file', /"1,000"/],
    ['a spread that no document holds', 'added_L,spread_L\n5,20001\n', 'bad-rows', 'row 2', /0 to 20000/],
    ['a note too long', `added_L,note\n5,${'x'.repeat(301)}\n`, 'bad-rows', 'row 2', /301 characters/],
    ['a note that turns what follows', 'added_L,note\n5,a\u202Eb\n', 'bad-rows', 'row 2', /plain text/],
    ['a unit unheard of', 'added_L,reading,unit\n5,212,furlong\n', 'bad-rows', 'row 2', /furlong.*ohm, V, %, mm/],
    ['a time that is none', 'added_L,time\n5,yesterday\n', 'bad-rows', 'row 2', /yesterday/],
    ['a lake', 'added_L\n5e6\n', 'bad-rows', 'row 2', /no more than/],
    ['a state unheard of', 'added_L,state\n5,maybe\n', 'bad-rows', 'row 2', /maybe/],
  ])('refuses %s, with the row and what it wants', (_, text, code, at, words) => {
    const error = refused(text);
    expect(error).toMatchObject({ code, at });
    expect(error.detail).toMatch(words);
  });

  it('the decimal mark is that of all numbers together, and said', () => {
    const text = 'added_L;reading;unit\n"1,000";212,5;ohm\n"2,000";190,25;ohm\n';
    const found = readPoursCsv(text);
    expect(found).toMatchObject({ ok: true, value: { mark: 'comma' } });
    expect(read(text).map(({ added_m3 }) => added_m3)).toEqual([0.001, 0.002]);
    expect(readPoursCsv('added_L\n5\n')).toMatchObject({ ok: true, value: { mark: undefined } });
    const asked = 'added_L;reading;unit\n1,000;212;ohm\n';
    expect(readPoursCsv(asked, 'comma')).toMatchObject({ ok: true, value: { lines: [{ added_m3: 0.001 }] } });
    expect(readPoursCsv(asked, 'point')).toMatchObject({ ok: true, value: { lines: [{ added_m3: 1 }] } });
    // A file parted by commas has decimal points.
    expect(readPoursCsv('added_L,reading,unit\n1.000,212.500,ohm\n')).toMatchObject({
      ok: true,
      value: { mark: 'point', lines: [{ added_m3: 0.001 }] },
    });
  });

  it('a cell of 100,000 digits is refused, shown short, and costs nothing', () => {
    const error = refused(`added_L\n${'1'.repeat(100_000)}\n`);
    expect(error.detail).toMatch(/not a number/);
    expect(error.detail.length).toBeLessThan(200);
  });

  it('texts that look like formulas, and such with an apostrophe of their own, come back as they were', () => {
    const notes = ['=1+1', '+5', '-3 mm', '@me', "'=1", "''@x", "'plain", '＝1'];
    const text = poursCsv(notes.map((note) => ({ ...LINE, note })));
    expect(read(text).map(({ note }) => note)).toEqual(notes);
    for (const line of text.split('\r\n').slice(1, -1)) expect(line.split(',')[6]).toMatch(/^"?'/);
  });

  it('names every bad row at once, and takes none of them', () => {
    expect(refused('added_L\n5\nx\n6\ny\n').detail).toMatch(/Row 3.*Row 5/);
  });

  it('takes no more rows than a log holds', () => {
    expect(refused(`added_L\n${'1\n'.repeat(401)}`)).toMatchObject({ code: 'too-many' });
  });
});
