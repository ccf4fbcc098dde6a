// bin/pale: the core from a shell. Exit code 2 and one line on standard error for bad use.
import { parseArgs } from 'node:util'
import { ContractError } from '@contracts/index'
import { FormatError } from '@core/formats'
import { MediaFault } from '@media/fault'
import type { Command } from './command'
import { balanceCommand } from './commands/balance'
import { bakeCommand } from './commands/bake'
import { convertCommand } from './commands/convert'
import { encodingsCommand } from './commands/encodings'
import { fitCommand } from './commands/fit'
import { guessCommand } from './commands/guess'
import { inspectCommand } from './commands/inspect'
import { lookupCommand } from './commands/lookup'
import { measureCommand } from './commands/measure'
import { UsageError } from './usage'

const commands: readonly Command[] = [
  encodingsCommand,
  lookupCommand,
  fitCommand,
  guessCommand,
  measureCommand,
  balanceCommand,
  convertCommand,
  bakeCommand,
  inspectCommand,
]

const overview = (): string =>
  [
    'pale: colour from the command line. Every command takes --json and --help.',
    '',
    ...commands.map((c) => `  ${`pale ${c.name}`.padEnd(18)} ${c.summary}`),
  ].join('\n')

const help = (command: Command): string =>
  [
    `${command.summary.charAt(0).toUpperCase()}${command.summary.slice(1)}.`,
    '',
    `  ${command.usage}`,
    ...(command.notes ? ['', ...command.notes] : []),
  ].join('\n')

async function main(args: readonly string[]): Promise<void> {
  const [name, ...rest] = args
  if (name === undefined || name === '--help' || name === 'help') {
    console.log(overview())
    return
  }
  const command = commands.find((c) => c.name === name)
  if (!command) throw new UsageError(`There is no command "${name.slice(0, 40)}"; pale --help lists them.`)
  const { values, positionals } = parse(command, rest)
  if (values['help'] === true) {
    console.log(help(command))
    return
  }
  const answer = await command.run(values, positionals)
  console.log(values['json'] === true ? JSON.stringify(answer.json, null, 2) : answer.text)
  if (answer.exitCode !== undefined) process.exitCode = answer.exitCode
}

function parse(command: Command, args: readonly string[]): { values: Record<string, unknown>; positionals: string[] } {
  try {
    // A value may begin with a minus sign: "--exposure -1" is joined to one word first.
    const joinedArgs = args.flatMap((arg, i) =>
      /^-[\d.]/.test(arg) && args[i - 1]?.startsWith('--')
        ? []
        : [/^-[\d.]/.test(args[i + 1] ?? '') && arg.startsWith('--') ? `${arg}=${args[i + 1]}` : arg],
    )
    return parseArgs({
      args: joinedArgs,
      allowPositionals: true,
      options: { ...command.options, json: { type: 'boolean' }, help: { type: 'boolean', short: 'h' } },
    })
  } catch (error) {
    throw new UsageError(
      `${error instanceof Error ? error.message.split('. To specify')[0] : String(error)} (pale ` +
        `${command.name} --help)`,
    )
  }
}

/** The one line for an error of use; null for errors of the program. */
function sentence(error: unknown): string | null {
  if (error instanceof MediaFault) return `${error.message}${error.hint ? ` ${error.hint}` : ''}`
  if (
    error instanceof UsageError ||
    error instanceof FormatError ||
    error instanceof RangeError ||
    error instanceof ContractError
  )
    return error.message
  const code = (error as { code?: string }).code
  if (code === 'ENOSPC') return 'The disk is full.'
  if (code === 'EACCES' || code === 'ENOENT' || code === 'EISDIR' || code === 'EROFS')
    return `The file cannot be written or read: ${(error as Error).message}`
  return null
}

try {
  await main(process.argv.slice(2))
} catch (error) {
  const line = sentence(error)
  if (line === null) throw error
  console.error(`pale: ${line.replace(/\s+/g, ' ')}`)
  process.exitCode = 2
}
