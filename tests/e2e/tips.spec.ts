// What a tip names is explained one step away, by the pointer and by the keyboard.
import { expect, test } from './program'
import { openBench } from './bench-page'

test('a tip leads to its word in the glossary, by a click and by F1', async ({ page }) => {
  await openBench(page, 'Glaze shelf', 'level')
  const name = page.getByRole('button', { name: 'Temperature', exact: true })
  await name.hover()
  const link = page.getByRole('link', { name: 'Glossary: Mired (F1)' })
  await link.hover()
  // The pointer may rest on the tip itself.
  await page.waitForTimeout(600)
  await link.click()
  await expect(page).toHaveURL(/\/glossary#mired$/)
  await expect(page.locator('#mired')).toBeFocused()
  await page.goBack()
  await expect(page.getByTestId('picture')).toBeVisible()
  await name.focus()
  await page.keyboard.press('Shift+Tab')
  await page.keyboard.press('Tab')
  await expect(link).toBeVisible()
  await page.keyboard.press('F1')
  await expect(page.locator('#mired')).toBeInViewport()
  await page.goBack()
  await name.hover()
  await expect(link).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(link).toBeHidden()
})
