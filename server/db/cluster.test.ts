import { mkdirSync, mkdtempSync, rmSync, statSync, symlinkSync, writeFileSync, chownSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ClusterError, ownFolder } from './cluster'

describe('The folder of a database in a place where every account may write', () => {
  let parent: string
  beforeEach(() => {
    parent = mkdtempSync(join(tmpdir(), 'pale-cluster-'))
  })
  afterEach(() => rmSync(parent, { recursive: true, force: true }))

  const mode = (path: string): number => statSync(path).mode & 0o777

  test('can be passed through even if the process takes all rights of others away', () => {
    const before = process.umask(0o077)
    try {
      const folder = join(parent, 'new')
      ownFolder(folder)
      expect(mode(folder)).toBe(0o711)
    } finally {
      process.umask(before)
    }
  })

  test('is no longer written by others', () => {
    const folder = join(parent, 'open')
    mkdirSync(folder)
    ownFolder(folder)
    expect(mode(folder)).toBe(0o711)
  })

  test('a link and a file are refused', () => {
    mkdirSync(join(parent, 'elsewhere'))
    symlinkSync(join(parent, 'elsewhere'), join(parent, 'link'))
    writeFileSync(join(parent, 'file'), '')
    expect(() => ownFolder(join(parent, 'link'))).toThrow(ClusterError)
    expect(() => ownFolder(join(parent, 'file'))).toThrow(ClusterError)
  })

  const asRoot = process.getuid?.() === 0 ? test : test.skip
  asRoot('what another account laid there is refused', () => {
    const folder = join(parent, 'theirs')
    mkdirSync(folder)
    chownSync(folder, 12345, 12345)
    expect(() => ownFolder(folder)).toThrow('belongs to another account')
  })
})
