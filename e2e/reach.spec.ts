import { expect, type Page } from '@playwright/test';
import { choose, openStudy, rows } from './study-page.ts';
import { test } from './test.ts';

/** Least width and height of what can be hit, in pixels. */
const TARGET = 24;

interface Reach {
  /** What is smaller than a target, as name and size. */
  readonly small: readonly string[];
  /** What is not under the pointer at its middle after it was scrolled to. */
  readonly hidden: readonly string[];
  readonly width: number;
}

/** Measures everything on a page that can be used, as far as it belongs to the dialog that is open, if there is one. */
function reachOf(page: Page): Promise<Reach> {
  return page.evaluate((least) => {
    const dialog = document.querySelector('[role="dialog"]');
    const within = dialog ?? document;
    const used = [
      ...within.querySelectorAll<HTMLElement>(
        'button, a[href], input, select, textarea, [role="tab"], [role="slider"], [role="combobox"]',
      ),
    ];
    const small: string[] = [];
    const hidden: string[] = [];
    for (const element of used) {
      const style = getComputedStyle(element);
      const own = element.getBoundingClientRect();
      // links within a sentence are as high as its lines; steppers are shown while their field is pointed at
      if (own.width < 2 || own.height < 2 || style.visibility === 'hidden' || style.display === 'inline')
        continue;
      const hit = element.closest('label, .ant-select, .ant-input-number, .ant-tabs-tab') ?? element;
      const around = hit.getBoundingClientRect();
      const [width, height] = [Math.max(own.width, around.width), Math.max(own.height, around.height)];
      const name = element.getAttribute('aria-label') || element.textContent || hit.outerHTML.slice(0, 200);
      if (width < least - 0.5 || height < least - 0.5)
        small.push(`${name}: ${width.toFixed(1)} by ${height.toFixed(1)}`);
      element.scrollIntoView({ block: 'center', inline: 'center' });
      const { left, top, right, bottom } = element.getBoundingClientRect();
      const found = document.elementFromPoint((left + right) / 2, (top + bottom) / 2);
      if (found === null || !(hit.contains(found) || found.contains(hit))) hidden.push(name);
    }
    return { small, hidden, width: document.documentElement.scrollWidth };
  }, TARGET);
}

const STUDY = 'Frost line in the soil';

/** Each view, and how one gets there. */
const VIEWS: readonly (readonly [name: string, open: (page: Page) => Promise<void>])[] = [
  [
    'the list of studies',
    async (page) => {
      await page.goto('/studies');
      await page.getByRole('searchbox').fill(STUDY);
      await expect(page.getByRole('link', { name: STUDY })).toBeVisible();
    },
  ],
  ['a study', (page) => openStudy(page, STUDY)],
  [
    'a shared study',
    async (page) => {
      await openStudy(page, STUDY);
      await page.getByRole('button', { name: 'Share', exact: true }).click();
      await page.getByRole('button', { name: 'Create link' }).click();
      await page.goto(await page.getByRole('textbox', { name: 'Link to the study' }).inputValue());
      await expect(rows(page).first()).toBeVisible();
    },
  ],
  [
    'a run',
    async (page) => {
      await openStudy(page, STUDY);
      await page.keyboard.press('2');
      await expect(page.getByRole('button', { name: 'Copy rows' })).toBeVisible();
    },
  ],
  [
    'a step',
    async (page) => {
      await openStudy(page, STUDY);
      await page.keyboard.press('3');
      await expect(page.getByRole('button', { name: 'Play' })).toBeVisible();
    },
  ],
  [
    'the export',
    async (page) => {
      await openStudy(page, STUDY);
      await page.getByRole('button', { name: 'Export', exact: true }).click();
      await expect(page.getByRole('dialog')).toBeVisible();
    },
  ],
  [
    'marking',
    async (page) => {
      await page.goto('/marking');
      await page.getByLabel('Pasted rows').fill('n\tAnna\tBen\n0\t4\t4\n1\t3.65\t3.6\n2\t3.3157\t3.3');
      await choose(page, 'Study', 'Sluice of the snow lake');
      await page.getByLabel('Step size', { exact: true }).fill('0.5');
      await page.getByRole('button', { name: '2 students in 1 file' }).click();
      await page.getByRole('button', { name: /^Marks: / }).click();
      await page.getByRole('button', { name: 'Variants: none' }).click();
      await expect(page.getByRole('img', { name: /with the rows of/ })).toBeVisible();
    },
  ],
  [
    'a method of the library',
    async (page) => {
      await page.goto('/methods');
      await page.getByRole('searchbox').fill('RK4');
      await page.getByRole('link', { name: 'RK4', exact: true }).click();
      await expect(page.getByRole('textbox', { name: 'Title of the method' })).toHaveValue('RK4');
    },
  ],
];

for (const [name, open] of VIEWS)
  test(`${name}: everything is large enough to be hit, and is reached at 200 % zoom and on a phone`, async ({
    page,
  }) => {
    await open(page);
    expect((await reachOf(page)).small).toEqual([]);
    for (const [width, height] of [
      [640, 400],
      [390, 844],
    ] as const) {
      await page.setViewportSize({ width, height });
      await expect(async () => {
        const reach = await reachOf(page);
        expect([width, reach.hidden, reach.width]).toEqual([width, [], width]);
      }).toPass();
    }
  });

test('a row of a table is one stop of the tab key, and its buttons are reached with arrows', async ({
  page,
}) => {
  await openStudy(page, STUDY);
  const stops = (within: string): Promise<number> =>
    page.evaluate(
      (selector) =>
        [...document.querySelectorAll<HTMLElement>(`${selector} :is(a, button, input, [tabindex])`)].filter(
          (element) => element.tabIndex >= 0,
        ).length,
      within,
    );
  const count = await rows(page).count();
  expect(await stops('.rung-table tbody')).toBe(count);
  await rows(page).nth(1).focus();
  await page.keyboard.press('Enter');
  await expect(rows(page).nth(1)).toHaveAttribute('aria-selected', 'true');
  for (const key of ['ArrowDown', 'ArrowRight', 'ArrowRight', 'Enter']) await page.keyboard.press(key);
  const exclude = page.getByRole('button', { name: /^Include Euler at h = 0\.5/ });
  await expect(exclude).toBeFocused();
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await expect(rows(page).nth(2)).toBeFocused();
  await expect(page.getByRole('button', { name: /^Exclude Euler at h = 0\.5/ })).toHaveCount(1);
  await page.goto('/studies');
  await page.getByRole('searchbox').fill('Frost line');
  await expect(page.getByRole('link', { name: STUDY })).toBeVisible();
  const listed = await page.locator('.entry-title').count();
  expect(await stops('.ant-table-tbody-virtual')).toBe(listed);
  await page.getByRole('link', { name: STUDY }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(
    page.getByRole('group', { name: STUDY }).getByRole('button', { name: 'Copy', exact: true }),
  ).toBeFocused();
});
