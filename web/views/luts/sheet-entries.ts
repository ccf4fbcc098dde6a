// What goes on a contact sheet: the plain picture, LUTs where they belong for this shot, recipes.
import { encodings } from '@core/colour'
import type { GradeDocument, Recipe } from '@core/grade'
import { placeFor } from '@core/lut-bench'
import type { LutSummary } from '@contracts/responses'
import type { SheetItem } from '../../workers/sheet-worker'
import { text } from './text'

export interface SheetEntry {
  readonly key: string
  readonly name: string
  readonly hash: string | null
  readonly note: string
  readonly item: SheetItem
}

const unknown = { kind: 'look', certainty: 0, sources: [], alike: [], certain: false, sentences: [] } as const
export const plainEntry: SheetEntry = {
  key: 'plain',
  name: text.sheet.plain,
  hash: null,
  note: '',
  item: { kind: 'plain' },
}

export function lutEntry(lut: LutSummary, read: GradeDocument['read']): SheetEntry {
  const place = placeFor(lut.expects ?? unknown, { read })
  const source = lut.expects?.sources[0]
  const noteOf = (): string => {
    if (!lut.expects) return text.sheet.unknown
    return source ? (encodings.find((e) => e.id === place.takes)?.name ?? '') : text.kinds.look
  }
  return {
    key: lut.hash,
    name: lut.name,
    hash: lut.hash,
    note: noteOf(),
    item: { kind: 'lut', hash: lut.hash, place: { place: place.place, takes: place.takes } },
  }
}

export const recipeEntry = ({ id, name, steps, regions }: Recipe): SheetEntry => ({
  key: id,
  name,
  hash: null,
  note: text.sheet.recipe,
  item: { kind: 'recipe', content: { steps, regions } },
})
