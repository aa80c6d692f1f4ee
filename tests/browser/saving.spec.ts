import { meshText, parseSystemText } from '@/core/plan';
import { revolvedMesh } from '@/core/geometry';
import { demoText, enter, expect, openText, saved, settled, test } from './app';

/** The box boat with a scanned drum for its tank, of so many rings of 48 corners, and so many more such tanks. */
function scanned(rings: number, others: number): string {
  const read = parseSystemText(demoText('box-boat'));
  if (!read.ok) throw new Error(read.error.detail);
  const [tank] = read.value.tanks;
  const meridian = Array.from({ length: rings + 1 }, (_, i) => [i / rings, i === 0 || i === rings ? 0 : 0.2] as const);
  const shape = { kind: 'mesh' as const, file: 'scan.stl', ...meshText(revolvedMesh(meridian, 'x', 48)) };
  const other = (i: number) => ({
    ...tank!,
    id: `other-${i}`,
    name: `Other ${i}`,
    shape,
    ports: [],
    pickups: [],
    senders: [],
  });
  return JSON.stringify({
    ...read.value,
    tanks: [{ ...tank!, shape }, ...Array.from({ length: others }, (_, i) => other(i))],
  });
}

for (const [size, rings, others, least] of [
  ['65 kB', 29, 0, 65_000],
  ['a megabyte and a half', 150, 3, 1_450_000],
] as const) {
  test(`a system of ${size} is saved from the page, and is there after a reload`, async ({ page }) => {
    const text = scanned(rings, others);
    expect(text.length).toBeGreaterThan(least);
    await openText(page, text, 'ports/pickups');
    await enter(page, 'Height off the floor', '23');
    await saved(page);
    await page.reload();
    await settled(page);
    await expect(page.getByLabel('Height off the floor', { exact: true })).toHaveValue('23');
  });
}
