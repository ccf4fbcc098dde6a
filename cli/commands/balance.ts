// pale balance: what Balance for me would choose for clips, each at one frame.
import { writeFile } from 'node:fs/promises'
import { basename } from 'node:path'
import { controlIds, controlOf } from '@core/aims'
import { balance, type BalanceAnswer } from '@core/balance'
import { encodingById } from '@core/colour'
import { defaultGrade, openingShow, type GradeDocument } from '@core/grade'
import { fileFactsOf, guessEncoding, type Sight } from '@core/guess'
import { fitWithin, frameOfDecoded, requireInside, shrink, type Box, type CodeRange, type Frame } from '@core/image'
import type { Area } from '@core/readings'
import { decodedPicture } from '@media/decode'
import { probe } from '@media/probe'
import { decodeSights, type DecodedSight } from '@media/sights'
import { textOf, type Command } from '../command'
import { boxOption, choiceOption, numberOption, UsageError } from '../usage'

/** As large as the Bench looks at it. */
const looked = { width: 960, height: 540 } as const

interface BalancedClip {
  readonly file: string
  readonly frame: number
  readonly encodingId: string
  readonly grade: GradeDocument
  readonly answer: BalanceAnswer
}

export const balanceCommand: Command = {
  name: 'balance',
  summary: 'exposure and balance of clips, by what they show',
  usage: 'pale balance CLIP … [--encoding ID] [--range full|legal] [--frame N] [--card X,Y,W,H] [--out GRADE] [--json]',
  notes: [
    'Exit code 0: something is advised, or nothing is needed. 2: the command or a file is wrong.',
    'Without --encoding a clip is read as the program opens it: as it looks, unless its encoding is sure.',
    '--card says where a grey card is, in pixels of the frame. --out keeps the advised grade of one clip.',
    'The JSON names every control of Balance with from and to, whether it moves or not.',
  ],
  options: {
    encoding: { type: 'string' },
    range: { type: 'string' },
    frame: { type: 'string' },
    card: { type: 'string' },
    out: { type: 'string' },
  },
  run: async (values, paths) => {
    const out = textOf(values, 'out')
    if (paths.length === 0) throw new UsageError('Name the clips: pale balance CLIP …')
    if (out !== undefined && paths.length > 1) throw new UsageError('--out keeps one grade: name one clip with it.')
    const encodingId = textOf(values, 'encoding')
    const rangeText = textOf(values, 'range')
    const range = rangeText === undefined ? undefined : choiceOption(rangeText, 'range', ['full', 'legal'])
    const card = boxOption(textOf(values, 'card'), 'card')
    const frame = textOf(values, 'frame')
    const balanced: BalancedClip[] = []
    for (const path of paths) balanced.push(await balanceClip(path, { encodingId, range, card, frame }))
    const [first] = balanced
    const advised = first?.answer.choices[0]
    if (out !== undefined && advised) await writeFile(out, `${JSON.stringify(advised.grade, null, 2)}\n`)
    return { json: { clips: balanced.map(inJson) }, text: balanced.map(told).join('\n') }
  },
}

interface Options {
  readonly encodingId: string | undefined
  readonly range: CodeRange | undefined
  readonly card: Box | null
  readonly frame: string | undefined
}

async function balanceClip(path: string, options: Options): Promise<BalancedClip> {
  const { facts, frameTimes } = await probe(path, path)
  const range = options.range ?? facts.range
  const chosen =
    options.frame === undefined
      ? Math.floor(facts.frameCount / 2)
      : Math.floor(numberOption(options.frame, 'frame', 0, facts.frameCount - 1))
  const sights = await decodeSights(path, facts, frameTimes, chosen)
  const frameOf = (planes: Uint8Array): Frame => frameOfDecoded(decodedPicture(planes, facts, range))
  const sightOf = ({ planes, next }: DecodedSight): Sight => ({
    frame: frameOf(planes),
    ...(next ? { next: frameOf(next) } : {}),
  })
  const [one, ...others] = sights
  const seen: readonly [Sight, ...Sight[]] = [sightOf(one), ...others.map(sightOf)]
  const { opening, codeCeiling } = guessEncoding(seen, range, fileFactsOf(facts))
  const encodingId = encodingById(options.encodingId ?? opening.encodingId).id
  const plain = defaultGrade(encodingId, undefined, range)
  const read = { ...plain.read, brightestSignal: codeCeiling }
  const grade = { ...plain, read, show: openingShow(read, plain.show) }
  const at = sights.find(({ index }) => index === chosen) ?? one
  const whole = frameOf(at.planes)
  if (options.card) requireInside(whole, options.card)
  const { width, height } = fitWithin(whole.width, whole.height, looked.width, looked.height)
  const answer = balance({
    grade,
    frame: shrink(whole, width, height),
    sourceBits: facts.bitDepth,
    lut: () => undefined,
    pointed: { card: options.card && areaOf(options.card, whole), subjects: [] },
    clip: {
      document: grade,
      index: at.index,
      moments: sights
        .filter((sight) => sight !== at)
        .map((sight) => ({ index: sight.index, frame: shrink(frameOf(sight.planes), width, height) })),
    },
  })
  return { file: path, frame: at.index, encodingId, grade, answer }
}

const areaOf = ({ x, y, width, height }: Box, frame: Frame): Area => ({
  left: x / frame.width,
  top: y / frame.height,
  right: (x + width) / frame.width,
  bottom: (y + height) / frame.height,
})

function inJson({ file, frame, encodingId, grade, answer }: BalancedClip): object {
  return {
    file,
    frame,
    encodingId,
    note: answer.note,
    choices: answer.choices.map((choice) => ({
      id: choice.id,
      sure: choice.sure,
      sentence: choice.sentence,
      controls: controlIds.flatMap((id) => {
        const from = controlOf(grade, id)
        const to = controlOf(choice.grade, id)
        return from && to ? [{ id, from: from.value, to: to.value }] : []
      }),
      // Exposure at frames of the clip, where no one value serves all of it.
      ...(choice.ramp ? { ramp: choice.ramp } : {}),
      sceneMaximumStops: {
        from: grade.show.params.sceneMaximumStops,
        to: choice.grade.show.params.sceneMaximumStops,
      },
    })),
  }
}

function told({ file, answer: { choices, note } }: BalancedClip): string {
  const [advised] = choices
  const moves = advised?.moves.map((m) => m.words).join(', ')
  return `${basename(file)}: ${moves ? `${moves}. ` : 'nothing is changed. '}${note}`
}
