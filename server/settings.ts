// Where the server keeps things and listens, read from the environment once.
import { join, resolve } from 'node:path'

export interface Settings {
  /** The folder of everything that lasts: media, LUTs, renders, caches. */
  readonly dataFolder: string
  /** Files that lie here can be linked into a project without copying. */
  readonly mediaFolder: string
  /** What was removed can be brought back for so many days; what nobody uses stays as long. */
  readonly removedDays: number
  /** The most that the data folder may hold; null for all that the disk has. */
  readonly quotaBytes: number | null
  readonly host: string
  readonly port: number
  readonly databaseUrl: string
  /** The built web application. */
  readonly webFolder: string
}

/** Throws RangeError with a sentence when a variable cannot be used. */
export function readSettings(env: NodeJS.ProcessEnv): Settings {
  const databaseUrl = env['DATABASE_URL']
  if (!databaseUrl) throw new RangeError('DATABASE_URL is not set; bin/demo sets it.')
  return {
    dataFolder: resolve(env['PALE_DATA'] ?? '.data'),
    mediaFolder: mediaFolderOf(env, resolve(env['PALE_DATA'] ?? '.data')),
    removedDays: readDays(env['PALE_REMOVED_DAYS']),
    quotaBytes: readQuota(env['PALE_QUOTA_GB']),
    host: env['PALE_HOST'] ?? '127.0.0.1',
    port: readPort(env['PALE_PORT'] ?? '4180'),
    databaseUrl,
    webFolder: resolve(env['PALE_WEB'] ?? join('dist', 'web')),
  }
}

/** PALE_MEDIA, or a folder of its own beside the data. */
export const mediaFolderOf = (env: NodeJS.ProcessEnv, dataFolder: string): string =>
  resolve(env['PALE_MEDIA'] ?? join(dataFolder, 'library'))

export function readPort(text: string): number {
  const port = Number(text)
  if (!/^\d{1,5}$/.test(text) || port < 1 || port > 65535)
    throw new RangeError(`PALE_PORT must be a number from 1 to 65535, not "${text}".`)
  return port
}

/** Gigabytes as bytes; throws RangeError with a sentence. */
export function readQuota(text: string | undefined): number | null {
  if (text === undefined) return null
  if (!/^\d{1,7}(?:\.\d+)?$/.test(text)) throw new RangeError(`PALE_QUOTA_GB must be a number, not "${text}".`)
  return Number(text) * 1e9
}

const usualDays = 7

/** Days as a number; throws RangeError with a sentence. */
export function readDays(text: string | undefined): number {
  if (text === undefined) return usualDays
  const days = Number(text)
  if (!/^\d{1,4}(?:\.\d+)?$/.test(text)) throw new RangeError(`PALE_REMOVED_DAYS must be a number, not "${text}".`)
  return days
}
