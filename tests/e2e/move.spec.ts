import { expect, test } from '@playwright/test';
import { openDemo } from './support';

test('what sticks out gets a knock: where it breaks, what would hold it; a lighter one, and a clay that stays soft', async ({
  page,
}) => {
  await openDemo(page, 'Coral candelabrum', 'move');
  await page.getByRole('button', { name: 'Try it', exact: true }).click();
  const parts = page.getByRole('list', { name: 'What sticks out' }).getByRole('listitem');
  await expect(parts.first()).toContainText(/branch \d: breaks off/);
  await expect(parts.first()).toContainText(/from its end, where it is .+ thick, .+ times what the clay bears/);
  await expect(parts.first()).toContainText(/of clay there.* would hold it\./);
  await expect(parts).toHaveCount(6);
  await page.getByRole('button', { name: /^The other \d+$/ }).click();
  await expect(parts).not.toHaveCount(6);
  const force = page.getByRole('textbox', { name: 'A knock of, N' });
  await force.fill('2000');
  await force.press('Enter');
  await expect(page.getByText('A knock is between 5 N and 500 N.')).toBeVisible();
  await force.fill('5');
  await force.press('Enter');
  await page.getByRole('button', { name: 'Try it', exact: true }).click();
  await expect(parts.first()).toContainText(/holds|may crack/);
  await openDemo(page, 'Walrus', 'move');
  await page.getByRole('button', { name: 'Try it', exact: true }).click();
  await expect(page.getByText('It could not be tried: it stays soft: a knock dents it')).toBeVisible();
});
