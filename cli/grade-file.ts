// Grades and LUTs from files: a grade document as JSON, and the LUT files it refers to by their hash.
import { checkedGrade, ContractError } from '@contracts/index'
import { lutsOf, type GradeDocument, type LutFinder } from '@core/grade'
import type { Lut } from '@core/luts'
import { bytesOf, readLutFile } from './lut-file'
import { UsageError } from './usage'

export interface LoadedGrade {
  readonly grade: GradeDocument
  readonly find: LutFinder
}

/** The grade of --grade with the LUTs of --lut; `plain` without one. Throws UsageError with one sentence. */
export async function gradeOrPlain(
  path: string | undefined,
  lutPaths: readonly string[],
  plain: GradeDocument,
): Promise<LoadedGrade> {
  if (path !== undefined) return loadGrade(path, lutPaths)
  if (lutPaths.length > 0) throw new UsageError('--lut gives the LUTs that a grade refers to; name it with --grade.')
  return { grade: plain, find: () => undefined }
}

/** Reads and checks a grade and the LUTs given beside it. Throws UsageError with one sentence. */
export async function loadGrade(path: string, lutPaths: readonly string[]): Promise<LoadedGrade> {
  const luts = new Map<string, Lut>()
  for (const lutPath of lutPaths) {
    const { lut, hash } = await readLutFile(lutPath)
    luts.set(hash, lut)
  }
  const find: LutFinder = (hash) => luts.get(hash)
  try {
    const grade = checkedGrade(JSON.parse((await bytesOf(path)).toString('utf8')))
    const missing = lutsOf(grade).filter((hash) => !luts.has(hash))
    if (missing.length > 0)
      throw new UsageError(
        `The grade uses a LUT whose SHA-256 begins ${missing[0]?.slice(0, 12)}; give its file with --lut.`,
      )
    return { grade, find }
  } catch (error) {
    if (error instanceof ContractError)
      throw new UsageError(`"${path}" is no grade: ${error.field ? `${error.field}: ` : ''}${error.message}`)
    if (error instanceof SyntaxError) throw new UsageError(`"${path}" is not readable JSON.`)
    throw error
  }
}
