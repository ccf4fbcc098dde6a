// Follows a guide of docs/ word for word: it creates the files and adds the lines that the guide says.
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'

const instruction = /^(?:Create `([^`]+)`|In `([^`]+)`, after `([^`]+)`, add):\n\n```\w+\n([\s\S]*?)^```$/gm

/** Carries a guide out in a copy of the project; returns the files that were created and those that were changed. */
export function followGuide(folder: string, guide: string): { readonly created: string[]; readonly changed: string[] } {
  const created: string[] = []
  const changed: string[] = []
  for (const [, create, change, after, block = ''] of readFileSync(guide, 'utf8').matchAll(instruction)) {
    if (create) {
      const path = join(folder, create)
      if (existsSync(path)) throw new Error(`${guide}: ${create} is there already.`)
      mkdirSync(dirname(path), { recursive: true })
      writeFileSync(path, block)
      created.push(create)
    } else if (change && after) {
      const path = join(folder, change)
      const lines = readFileSync(path, 'utf8').split('\n')
      const at = lines.indexOf(after)
      if (at < 0 || lines.indexOf(after, at + 1) >= 0)
        throw new Error(`${guide}: "${after}" is not one line of ${change}.`)
      lines.splice(at + 1, 0, ...block.trimEnd().split('\n'))
      writeFileSync(path, lines.join('\n'))
      changed.push(change)
    }
  }
  if (created.length === 0) throw new Error(`${guide} says nothing to do.`)
  return { created, changed }
}
