import { expect, type APIRequestContext, type Page } from '@playwright/test';

/** The demo pieces by their names. Asked once: whoever looks at the shelf has every card on it worked out. */
const demoIds = new Map<string, string>();

/** A fresh copy of a demo piece, not opened. Returns its id. */
export async function copyDemo(request: APIRequestContext, name: string): Promise<string> {
  if (!demoIds.has(name))
    for (const p of (await (await request.get('/api/builds')).json()) as { id: string; name: string }[])
      demoIds.set(p.name, p.id);
  const demo = demoIds.get(name);
  if (demo === undefined) throw new Error(`${name} is not on the shelf`);
  return ((await (await request.post(`/api/builds/${demo}/copy`)).json()) as { id: string }).id;
}

/** Opens a fresh copy of the demo piece at a station, its figures worked out. Returns its address. */
export async function openLamplighter(page: Page, station = 'brief'): Promise<string> {
  return openDemo(page, 'The Lamplighter', station);
}

/** A fresh copy of any demo piece, by its name. */
export async function openDemo(page: Page, name: string, station = 'brief'): Promise<string> {
  const id = await copyDemo(page.request, name);
  await page.goto(`/build/${id}?station=${station}`);
  await settled(page);
  return id;
}

/** The figures are there, and are of the build as it stands. */
export async function settled(page: Page): Promise<void> {
  await expect(page.locator('footer.beam')).toHaveAttribute('aria-busy', 'false');
  await expect(page.getByTestId('beam-Weight, wet')).toHaveText(/\d/);
}

export function beam(page: Page, name: string) {
  return page.getByTestId(`beam-${name}`);
}

/** Waits until the page says that everything is saved. */
export async function saved(page: Page): Promise<void> {
  await expect(page.getByTestId('save')).toHaveText(/^Saved \d\d:\d\d/);
}

export async function setField(page: Page, label: string | RegExp, value: string): Promise<void> {
  const field = page.getByLabel(label, typeof label === 'string' ? { exact: true } : {}).first();
  await field.fill(value);
  await field.press('Enter');
}

/** kg out of "7.35 kg". */
export function figure(text: string | null): number {
  return Number((text ?? '').replace(/[^\d.-]/g, ''));
}
