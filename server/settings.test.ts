import { readPort, readQuota, readSettings } from './settings'

test('settings have plain defaults and stay on loopback', () => {
  const settings = readSettings({ DATABASE_URL: 'postgres://x' })
  expect(settings).toMatchObject({ host: '127.0.0.1', port: 4180 })
  expect(settings.dataFolder).toMatch(/\.data$/)
})

test('without a database the sentence says what sets it', () => {
  expect(() => readSettings({})).toThrow('DATABASE_URL is not set; bin/demo sets it.')
})

test.each(['0', '65536', '99999999', '-1', '4180x', '', '1.5', ' 80'])('port %j is refused by name', (text) => {
  expect(() => readPort(text)).toThrow(/PALE_PORT must be a number from 1 to 65535/)
})

test('a quota is given in gigabytes, and refused by name where it is no number', () => {
  expect(readQuota(undefined)).toBeNull()
  expect(readQuota('1.5')).toBe(1.5e9)
  for (const text of ['', '-1', '1e9', 'all', '5 GB']) expect(() => readQuota(text)).toThrow(/PALE_QUOTA_GB must be/)
})
