import { readPort, readSettings } from './settings'

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
