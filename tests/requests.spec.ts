/** A request: on the list, a piece, a version, assigned, and promised. */
import { expect, test } from '@playwright/test';
import { expectAccessible, open, withRoom } from './support';

test('a request leads from who asked to a promise', async ({ page }) => {
  // A student with a piece that is somebody else’s request.
  await withRoom(page, 'Sanna');
  await open(page, '/pieces');
  await page.getByRole('link', { name: 'Requests' }).click();
  await page.getByLabel('Piece', { exact: true }).fill('The Long Pier');
  await page.getByLabel('Asked by').selectOption('Sanna');
  await page.getByLabel('Link, or where').fill('https://sound.invalid/pier');
  await page.getByLabel('Notes').fill('The chorus, slow.');
  await page.getByRole('button', { name: 'Add to the list' }).click();
  await expect(page.getByRole('status')).toContainText('“The Long Pier” is on the list.');
  const item = page.getByRole('listitem').filter({ hasText: 'The Long Pier' });
  await expect(item).toContainText('Sanna');
  await expect(item).toContainText('add its file');
  await expect(item.getByRole('link', { name: 'https://sound.invalid/pier' })).toBeVisible();
  await expectAccessible(page);
  // It is a piece that is here already, and Sanna has it.
  await item.getByLabel('It is').selectOption('Sanna’s Song');
  await item.getByRole('link', { name: 'set a goal date' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Sanna’s Song');
  await open(page, '/pieces/requests');
  // Of a piece that nobody has the next step is a version.
  await item.getByLabel('It is').selectOption({ index: 1 });
  await expect(item).toContainText('Next:');
  await item.getByRole('button', { name: 'Put aside The Long Pier' }).click();
  await expect(page.getByText('The request is put aside.')).toBeVisible();
  await expect(item).toHaveCount(0);
});
