import { requireSpace, reserveBytes } from './space'

const free = (bytes: number) => (): Promise<number> => Promise.resolve(bytes)

test('what leaves the reserve is accepted', async () => {
  await expect(requireSpace('/', 5e9, free(reserveBytes + 5e9))).resolves.toBeUndefined()
})

test('what does not is refused with both sizes', async () => {
  await expect(requireSpace('/', 5e9, free(reserveBytes + 4.9e9))).rejects.toMatchObject({
    status: 507,
    code: 'disk_full',
    message: 'This needs 5.0 GB, and the disk has room for 4.9 GB.',
  })
  await expect(requireSpace('/', 1, free(10))).rejects.toMatchObject({
    message: expect.stringContaining('0.0 GB') as string,
  })
})

test('the real disk is asked', async () => {
  await expect(requireSpace('/', 0)).resolves.toBeUndefined()
  await expect(requireSpace('/', 1e18)).rejects.toMatchObject({ status: 507 })
})
