// pale guess: which encoding a picture or clip was written in, ranked, with evidence.
import { extname } from 'node:path'
import { fileFactsOf, guessEncoding, rereadCode, type FileFacts, type Guess, type Sight } from '@core/guess'
import { frameOfDecoded, meanOfBox, videoHigh, videoLow, type CodeRange, type Frame } from '@core/image'
import { matchPatches, type Patch } from '@core/measure'
import { decodedPicture } from '@media/decode'
import { probe } from '@media/probe'
import { decodeSights, type DecodedSight } from '@media/sights'
import { listOf, textOf, type Command } from '../command'
import { pictureExtensions, readPicture } from '../pictures'
import { choiceOption, numberOption, UsageError } from '../usage'

export const guessCommand: Command = {
  name: 'guess',
  summary: 'rank the encodings a picture or clip may have been written in',
  usage: 'pale guess IN [--range full|legal] [--frame N] [--patch X,Y,W,H=LIGHT …] [--json]',
  notes: [
    'Three places of a clip are looked at, each as two frames that follow each other, or only the one ' +
      'that --frame names. --range says how the file is flagged, where it does not say so itself.',
    '--patch names an area (in pixels of the middle frame, or of the one that --frame names) whose ' +
      'light is known up to one exposure, 0.18 for a grey card; with three or more the exact curve is ' +
      'matched.',
  ],
  options: { range: { type: 'string' }, frame: { type: 'string' }, patch: { type: 'string', multiple: true } },
  run: async (values, [input]) => {
    if (input === undefined) throw new UsageError('Name a picture or a clip: pale guess IN')
    const rangeText = textOf(values, 'range')
    const asked = rangeText === undefined ? undefined : choiceOption(rangeText, 'range', ['full', 'legal'])
    const { sights, flagged, file } = pictureExtensions.has(extname(input).toLowerCase())
      ? await pictureFrame(input, asked ?? 'full')
      : await clipFrame(input, asked, textOf(values, 'frame'))
    const guess = guessEncoding(sights, flagged, file)
    const { frame } = sights[sights.length >> 1] ?? sights[0]
    const patches = listOf(values, 'patch').map((text) => readPatch(text, frame))
    const matched = patches.length === 0 ? null : matchPatches(patches).slice(0, 5)
    return {
      json: {
        ...summary(guess),
        ...(matched
          ? {
              card: matched.map((m) => ({
                id: m.encoding.id,
                errorCodes: m.errorCodes,
                exposureStops: m.exposureStops,
              })),
            }
          : {}),
      },
      text: [
        ...printed(guess),
        ...(matched
          ? [
              'By the patches:',
              ...matched.map(
                (m) =>
                  `${m.errorCodes.toFixed(2).padStart(7)} codes  ${m.encoding.name} (${m.encoding.id}), ` +
                  `${m.exposureStops >= 0 ? '+' : '−'}${Math.abs(m.exposureStops).toFixed(2)} stops`,
              ),
            ]
          : []),
      ].join('\n'),
    }
  },
}

interface Looked {
  readonly sights: readonly [Sight, ...Sight[]]
  readonly flagged: CodeRange
  readonly file: FileFacts
}

async function pictureFrame(path: string, flagged: CodeRange): Promise<Looked> {
  const { width, height, data, bits } = await readPicture(path)
  if (bits === 32) throw new UsageError(`"${path}" is floating point: it holds light, not codes of a camera.`)
  const perCode = 65535 / (videoHigh - videoLow)
  const codes = Uint16Array.from(data, (v) =>
    Math.min(65535, Math.max(0, Math.round((rereadCode(v, 'full', flagged) - videoLow) * perCode))),
  )
  return {
    sights: [{ frame: { width, height, data: codes, low: videoLow, high: videoHigh } }],
    flagged,
    file: { kind: 'still', bitDepth: bits, chroma: 'RGB' },
  }
}

async function clipFrame(path: string, asked: CodeRange | undefined, frameText: string | undefined): Promise<Looked> {
  const { facts, frameTimes } = await probe(path, path)
  const chosen =
    frameText === undefined ? undefined : Math.floor(numberOption(frameText, 'frame', 0, facts.frameCount - 1))
  const flagged = asked ?? facts.range
  const sightOf = ({ planes, next }: DecodedSight): Sight => ({
    frame: frameOfDecoded(decodedPicture(planes, facts, flagged)),
    ...(next ? { next: frameOfDecoded(decodedPicture(next, facts, flagged)) } : {}),
  })
  const [first, ...others] = await decodeSights(path, facts, frameTimes, chosen)
  return {
    sights: [sightOf(first), ...others.map(sightOf)],
    flagged,
    file: fileFactsOf(facts),
  }
}

function readPatch(text: string, frame: Frame): Patch {
  const found = /^(\d+),(\d+),(\d+),(\d+)=(\d+(?:\.\d+)?)$/.exec(text)
  if (!found) throw new UsageError(`--patch must look like 120,80,40,40=0.18, not "${text.slice(0, 60)}".`)
  const [x = 0, y = 0, width = 0, height = 0, linear = 0] = found.slice(1).map(Number)
  if (width < 1 || height < 1 || x + width > frame.width || y + height > frame.height)
    throw new UsageError(`The patch ${text} does not lie inside the picture of ${frame.width}×${frame.height}.`)
  return { code: meanOfBox(frame, { x, y, width, height })[1], linear }
}

function summary({ kind, kindProbability, groups, range, taggedId, opening, sentences, ranked }: Guess): object {
  return {
    kind,
    kindProbability,
    range,
    tagged: taggedId === null ? null : { encodingId: taggedId },
    opening,
    sentences,
    groups: groups.slice(0, 6).map((g) => ({
      probability: g.probability,
      members: g.members.slice(0, 8).map((m) => ({ id: m.encodingId, range: m.range, probability: m.probability })),
    })),
    ranked: ranked
      .slice(0, 10)
      .map((r) => ({ id: r.encodingId, range: r.range, probability: r.probability, evidence: r.evidence })),
  }
}

function openingSentence({ because, encodingId, asks }: Guess['opening']): string {
  if (because === 'tag') return `It opens as ${encodingId}, as the file says.`
  if (because === 'sure') return `It opens as ${encodingId}.`
  return asks ? 'It opens as it looks, and which of these it is will be asked.' : 'It opens as it looks.'
}

function printed({ sentences, ranked, opening }: Guess): readonly string[] {
  return [
    ...sentences,
    openingSentence(opening),
    '',
    ...ranked
      .slice(0, 6)
      .flatMap((r) => [
        `${(r.probability * 100).toFixed(1).padStart(6)} %  ${r.name} (${r.encodingId}), ${r.range} range`,
        ...r.evidence.map((e) => `            ${e}`),
      ]),
  ]
}
