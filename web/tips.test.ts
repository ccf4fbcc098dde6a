// Every tip says what happens in at most two sentences.
import { readdirSync } from 'node:fs'
import { join, relative } from 'node:path'
import { displays, encodings } from '@core/colour'
import * as grades from '@core/grade'
import { overlays } from '@core/instruments'
import * as readings from '@core/readings'
import * as regions from '@core/regions'
import { sentencesIn } from '../tests/support/sentences'

const isTip = (key: string): boolean => /^tip$|Tip$|^tips$|Tips$/.test(key)
/** Words that stand for those which a tip is given. */
const given = (f: (...args: string[]) => unknown): unknown => f('one', 'two', 'three', 'four', 'five', 'six')

/** All tips of a module's texts, with their path. */
function tipsOf(value: unknown, path: string, within = false): readonly (readonly [string, string])[] {
  if (typeof value === 'string') return within ? [[path, value]] : []
  if (typeof value === 'function') {
    if (!within) return []
    try {
      return tipsOf(given(value as (...args: string[]) => unknown), `${path}()`, true)
    } catch {
      return [[path, 'A tip that cannot be tried. With words. Alone.']]
    }
  }
  if (typeof value !== 'object' || value === null) return []
  return Object.entries(value).flatMap(([key, inner]) => tipsOf(inner, `${path}.${key}`, within || isTip(key)))
}

function textModules(folder: string): readonly string[] {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => /(^|[-/])text\.ts$|asked\.ts$/.test(name))
    .map((name) => join(folder, name))
}

test('sentences are counted', () => {
  expect(['One.', 'One. Two', 'At 2.4 it is one.', 'Is it? No. (N)', ''].map(sentencesIn)).toEqual([1, 2, 1, 2, 0])
})

test('no tip has more than two sentences', async () => {
  const files = textModules(__dirname)
  expect(files.length).toBeGreaterThan(8)
  const tips = (
    await Promise.all(files.map(async (file) => tipsOf(await import(file), relative(__dirname, file))))
  ).flat()
  tips.push(...tipsOf({ displays, encodings, overlays, grades, readings, regions }, 'core'))
  expect(tips.length).toBeGreaterThan(150)
  expect(tips.filter(([, words]) => sentencesIn(words) > 2)).toEqual([])
  expect(tips.filter(([, words]) => words.length > 160)).toEqual([])
})
