import type { DemoInstance } from './demo-instance'

export default async function stop(): Promise<void> {
  await (globalThis as { paleInstance?: DemoInstance }).paleInstance?.dispose()
}
