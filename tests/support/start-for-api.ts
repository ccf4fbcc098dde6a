// One program for all API tests.
import { startDemoInstance } from './demo-instance'

export default async function start(): Promise<void> {
  const instance = await startDemoInstance()
  ;(globalThis as { paleInstance?: unknown }).paleInstance = instance
  process.env['PALE_TEST_ADDRESS'] = instance.address
  process.env['PALE_TEST_DATA'] = instance.dataFolder
}
