// Every worker has a program of its own to test: its own database, data folder and port.
import { test as base } from '@playwright/test'
import { startDemoInstance } from '../support/demo-instance'

export { expect } from '@playwright/test'
export const test = base.extend<object, { readonly program: string }>({
  program: [
    async ({}, use) => {
      const instance = await startDemoInstance()
      process.env['PALE_TEST_ADDRESS'] = instance.address
      process.env['PALE_TEST_DATA'] = instance.dataFolder
      await use(instance.address)
      await instance.dispose()
    },
    { scope: 'worker', auto: true, timeout: 180_000 },
  ],
})
