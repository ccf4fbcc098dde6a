// How the tests, the bench and the screens start Debian's Chromium without a network.
import { chromium, type Browser } from '@playwright/test'

export const chromiumPath = process.env['PALE_CHROMIUM'] ?? '/usr/bin/chromium'
export const chromiumArguments = [
  '--no-sandbox',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]

export function startChromium(): Promise<Browser> {
  return chromium.launch({ executablePath: chromiumPath, args: chromiumArguments })
}
