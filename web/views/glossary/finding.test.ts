import { termIn } from './finding'

const idIn = (...texts: readonly string[]): string | undefined => termIn(...texts)?.id

test('the first word that the glossary knows, in the label before the tip', () => {
  expect(idIn('Vectorscope', 'Hue as an angle; legal range is framed.')).toBe('vectorscope')
  expect(idIn('play', 'Plays the proxy.')).toBe('proxy')
  expect(idIn('', 'Nothing that is explained.')).toBeUndefined()
})

test('ordinary words that look alike are not taken for terms', () => {
  expect(idIn('', 'Press any key to stop and look again.')).toBeUndefined()
  expect(idIn('', 'How much of the shared look this shot takes.')).toBe('look')
  expect(idIn('', 'Twice the light is one more of stops.')).toBe('stop')
})

test('two names of one term both lead to it, and the longer of two at one place wins', () => {
  expect(idIn('Crushed ≤ 0.50')).toBe('clipped')
  expect(idIn('White balance')).toBe('white-balance')
})
