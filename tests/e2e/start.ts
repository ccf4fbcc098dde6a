// Starts one program for all end-to-end tests and stops it at the end.
import { startDemoInstance } from '../support/demo-instance'

export default async function start(): Promise<() => Promise<void>> {
  const instance = await startDemoInstance()
  process.env['PALE_TEST_ADDRESS'] = instance.address
  process.env['PALE_TEST_DATA'] = instance.dataFolder
  return () => instance.dispose()
}
