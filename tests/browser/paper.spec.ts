import { expect, openCopy, test, type Page } from './app';

/** Pages of a PDF, and their size in points. @source ISO 32000-1, 7.7.3.3: page objects and their media box */
function pagesOf(pdf: Buffer): { readonly count: number; readonly sizes: string[] } {
  const text = pdf.toString('latin1');
  return {
    count: text.match(/\/Type\s*\/Page[^s]/g)?.length ?? 0,
    sizes: [...text.matchAll(/\/MediaBox\s*\[([^\]]+)\]/g)].map(([, box]) => box!.trim()),
  };
}

const SHEETS = {
  // A key, and the lid of 1.25 by 0.63 m at true size.
  template: [15, 25],
  holes: [1, 4],
  cutting: [1, 2],
  parts: [1, 3],
  schematic: [1, 2],
  correction: [1, 1],
  mounts: [1, 3],
  strapping: [1, 2],
  pours: [1, 4],
  findings: [1, 6],
  measure: [1, 4],
} as const;

async function openSheet(page: Page, id: string, sheet: string): Promise<void> {
  await page.goto(`/systems/${id}?stage=paper&sheet=${sheet}`);
  await expect(page.getByTestId('paper')).toHaveAttribute('data-fresh', 'true');
}

test('every sheet comes out of the printer as it is previewed: its pages and nothing of the interface', async ({
  page,
}) => {
  const id = await openCopy(page, 'crab-boat', 'paper');
  await openSheet(page, id, 'template');
  for (const [sheet, [least, most]] of Object.entries(SHEETS)) {
    await page.getByLabel('Sheet', { exact: true }).selectOption(sheet);
    await expect(page.getByTestId('paper')).toHaveAttribute('data-fresh', 'true');
    const previewed = await page.getByTestId('paper-page').count();
    const printed = pagesOf(await page.pdf({ preferCSSPageSize: true, printBackground: true }));
    expect(printed.count, sheet).toBe(previewed);
    expect(previewed, sheet).toBeGreaterThanOrEqual(least);
    expect(previewed, sheet).toBeLessThanOrEqual(most);
    // A4 in points, to a tenth of a millimetre.
    for (const size of printed.sizes) {
      const [, , width, height] = size.split(/\s+/).map(Number);
      expect(Math.abs((width! / 72) * 25.4 - 210), sheet).toBeLessThan(0.5);
      expect(Math.abs((height! / 72) * 25.4 - 297), sheet).toBeLessThan(0.5);
    }
    await page.emulateMedia({ media: 'print' });
    await expect(page.getByRole('navigation')).toBeHidden();
    await expect(page.getByTestId('numbers')).toBeHidden();
    const bars = await page.getByTestId('paper-page').evaluateAll((pages) =>
      pages.map((sheetOfPaper) => {
        const widths = [...sheetOfPaper.querySelectorAll('path')].map((path) => path.getBoundingClientRect().width);
        return widths.map((width) => (width / 96) * 25.4).filter((width) => Math.abs(width - 100) < 0.5).length;
      }),
    );
    for (const count of bars) expect(count, sheet).toBeGreaterThanOrEqual(1);
    await page.emulateMedia({ media: null });
  }
});

test('paper of the other size, a sheet by the rail, and its words in the reader’s units', async ({ page }) => {
  await openCopy(page, 'snow-vehicle', 'tank');
  await page.getByTestId('stage-paper').click();
  await expect(page.getByTestId('paper')).toHaveAttribute('data-fresh', 'true');
  await page.getByLabel('Paper', { exact: true }).selectOption('letter');
  const { sizes } = pagesOf(await page.pdf({ preferCSSPageSize: true }));
  expect(Math.abs(Number(sizes[0]!.split(/\s+/)[2]) / 72 - 8.5)).toBeLessThan(0.02);
  const first = page.getByTestId('paper-page').first();
  await expect(first).toContainText('before the tank has ever held fuel');
  await page.getByLabel('Sheet', { exact: true }).selectOption('measure');
  await expect(first).toContainText('To be measured');
  await expect(first).toContainText('mm');
  await page.getByLabel('Units', { exact: true }).selectOption('us');
  await expect(first).toContainText('inch, US gal');
});

test('the correction sheet has the points chosen at its task, and its button leads to it', async ({ page }) => {
  await openCopy(page, 'crab-boat', 'gauge/correction');
  await page.getByLabel('Points it takes, plan').selectOption('8');
  await page.getByLabel('Placed, plan').selectOption('even');
  const shown = await page.getByTestId('points-planned').locator('tbody tr').allInnerTexts();
  expect(shown).toHaveLength(8);
  await page.getByTestId('correction').getByRole('button', { name: 'Print' }).click();
  await expect(page.getByTestId('paper')).toHaveAttribute('data-fresh', 'true');
  const first = page.getByTestId('paper-page').first();
  for (const row of shown) for (const cell of row.split('\t')) await expect(first).toContainText(cell.trim());
});

test('a template is printed at true size: holes on its pages are as wide as they are', async ({ page }) => {
  await openCopy(page, 'crab-boat', 'fit/templates');
  await page.getByLabel('Face', { exact: true }).selectOption({ label: 'Lid' });
  await page.getByTestId('templates').getByRole('button', { name: 'Print' }).click();
  await expect(page.getByTestId('paper')).toHaveAttribute('data-fresh', 'true');
  await expect(page.getByLabel('Sheet', { exact: true })).toHaveValue('template');
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByTestId('paper-page').first()).toContainText('pages at true size follow');
  const round = await page.getByTestId('paper-page').evaluateAll((pages) =>
    pages.slice(1).flatMap((sheet) =>
      [...sheet.querySelectorAll('path')].flatMap((path) => {
        // Without the width of its line, which a box round it on the page would have.
        const { width, height } = path.getBBox();
        const scale = path.getScreenCTM()!.a;
        const [wide, tall] = [width, height].map((size) => (size * scale * 25.4) / 96) as [number, number];
        return Math.abs(wide - tall) < 0.1 && wide > 5 ? [wide] : [];
      }),
    ),
  );
  // Vent 16 mm, sender flange 42 mm within its screws, as the hole chart has them: each whole on some page.
  for (const hole of [16, 42])
    expect(Math.min(...round.map((size) => Math.abs(size - hole))), `${hole}`).toBeLessThan(0.2);
  await page.emulateMedia({ media: null });
});
