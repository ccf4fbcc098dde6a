import { existsSync, mkdirSync, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { openSpace, reserveBytes } from './space'

const free = (bytes: number) => (): Promise<number> => Promise.resolve(bytes)
let folder: string
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'pale-space-'))
})
afterEach(() => rmSync(folder, { recursive: true, force: true }))

describe('room on the disk', () => {
  test('what leaves the reserve is accepted', async () => {
    await expect(openSpace(folder, null, free(reserveBytes + 5e9)).require(5e9)).resolves.toBeUndefined()
  })

  test('what does not is refused with both sizes', async () => {
    await expect(openSpace(folder, null, free(reserveBytes + 4.9e9)).require(5e9)).rejects.toMatchObject({
      status: 507,
      code: 'disk_full',
      message: 'This needs 5.0 GB, and the disk has room for 4.9 GB.',
    })
    await expect(openSpace(folder, null, free(10)).require(1)).rejects.toMatchObject({
      message: expect.stringContaining('0.0 GB') as string,
    })
  })

  test('the real disk is asked', async () => {
    await expect(openSpace(folder, null).require(0)).resolves.toBeUndefined()
    await expect(openSpace(folder, null).require(1e18)).rejects.toMatchObject({ status: 507 })
  })
})

test('a quota counts what is kept, in all folders', async () => {
  mkdirSync(join(folder, 'media', 'take'), { recursive: true })
  writeFileSync(join(folder, 'media', 'take', '0.png'), Buffer.alloc(3_000_000))
  writeFileSync(join(folder, 'luts'), Buffer.alloc(1_000_000))
  const space = openSpace(folder, 10_000_000, free(1e12))
  await expect(space.require(5_900_000)).resolves.toBeUndefined()
  await expect(space.require(6_100_000)).rejects.toMatchObject({ status: 507, code: 'quota' })
})

test('the ballast is given up for what frees room, and laid down again where there is some', async () => {
  const ballast = join(folder, 'ballast')
  const full = openSpace(folder, null, free(reserveBytes / 2))
  await full.keepBallast()
  expect(existsSync(ballast)).toBe(false)
  const roomy = openSpace(folder, null, free(reserveBytes * 2))
  await roomy.keepBallast()
  expect(statSync(ballast).size).toBe(32 * 1024 ** 2)
  await full.giveUpBallast()
  expect(existsSync(ballast)).toBe(false)
  await full.giveUpBallast()
})
