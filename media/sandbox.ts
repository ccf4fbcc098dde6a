// A room for media programs, which read files that nobody vouches for: no network, no files but those that they are to
// read, no rights. It is made once, of namespaces (Linux namespaces(7)), and every program is started inside it.
import { spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { existsSync, mkdirSync, realpathSync } from 'node:fs'
import { setTimeout as delay } from 'node:timers/promises'

export interface SandboxFolders {
  /** An empty folder of its own, where the room is built. */
  readonly root: string
  readonly reads: readonly string[]
  readonly writes: readonly string[]
}

export interface Sandbox {
  /** The words before a command that is to run in the room, in a folder of it. */
  readonly enter: (folder: string | undefined) => readonly string[]
  readonly close: () => void
}

/** The system's own folders that programs need to run at all. */
const system = '/usr /bin /sbin /lib /lib32 /lib64 /etc/ld.so.cache /etc/ld.so.conf /etc/ld.so.conf.d /etc/alternatives'

// Arguments: the root, what is read, "--", what is written. All that is not shown is not there.
const build = `
set -eu
root=$1; shift
mount -t tmpfs -o mode=755,size=1m none "$root"
mkdir "$root/proc" "$root/dev" "$root/old"
for name in null zero urandom; do : > "$root/dev/$name"; mount --bind "/dev/$name" "$root/dev/$name"; done
show() {
  if [ -L "$1" ] && [ "$3" = as-link ]; then mkdir -p "$root$(dirname "$1")"; cp -P "$1" "$root$1"; return 0; fi
  if [ -d "$1" ]; then mkdir -p "$root$1"; else mkdir -p "$root$(dirname "$1")"; : > "$root$1"; fi
  mount --rbind "$1" "$root$1"
  mount -o "remount,bind,nosuid,nodev,$2" "$root$1"
}
for path in ${system}; do [ ! -e "$path" ] || show "$path" ro as-link; done
while [ "$1" != -- ]; do show "$1" ro itself; shift; done
shift
for path in "$@"; do show "$path" rw itself; done
mount -t proc proc "$root/proc" 2>/dev/null || mount --rbind /proc "$root/proc"
cd "$root"
pivot_root . old
umount -l /old
umount -l /proc
mount -o remount,ro /
echo ready
exec cat
`

const asRoot = (): boolean => process.getuid?.() === 0
const namespaces = ['--net', '--mount', '--ipc', '--uts'] as const
/** Nothing may be done by right but to read what one is shown. */
const powerless = ['setpriv', '--no-new-privs', '--inh-caps=-all', '--bounding-set=-all,+dac_read_search'] as const
const buildMs = 10_000

/** Each place by the name it is known by, and by its real one, as links lead there. */
const places = (paths: readonly string[]): readonly string[] => [
  ...new Set(paths.filter((path) => existsSync(path)).flatMap((path) => [path, realpathSync(path)])),
]

/** Null where the system does not allow it. `onLost` is called when the room is gone though nobody closed it. */
export async function openSandbox(
  { root, reads, writes }: SandboxFolders,
  onLost: () => void,
): Promise<Sandbox | null> {
  mkdirSync(root, { recursive: true })
  const own = asRoot() ? [] : ['--user', '--map-root-user']
  // Cards that are put in later are seen, as the mounts of the machine go on to come here.
  // It stays as long as its input is open: it ends with this process, however that ends.
  const holder = spawn(
    'unshare',
    [...own, ...namespaces, '--propagation', 'slave', '--', 'sh', '-c', build, 'sh', root].concat(
      places(reads),
      '--',
      places(writes),
    ),
    { stdio: ['pipe', 'pipe', 'ignore'], env: { PATH: process.env['PATH'] ?? '/usr/bin:/bin', LC_ALL: 'C' } },
  )
  holder.stdin.on('error', () => undefined)
  const said = await Promise.race([
    once(holder.stdout, 'data').then(([chunk]) => String(chunk as Buffer)),
    once(holder, 'exit').then(
      () => 'ended',
      () => 'not there',
    ),
    delay(buildMs, 'too slow', { ref: false }),
  ]).catch(() => 'broken')
  if (!said.startsWith('ready') || holder.pid === undefined) {
    holder.kill('SIGKILL')
    return null
  }
  let closed = false
  holder.once('exit', () => {
    if (!closed) onLost()
  })
  holder.unref()
  const into = [
    'nsenter',
    ...(asRoot() ? [] : ['--user', '--preserve-credentials']),
    ...namespaces,
    '--target',
    String(holder.pid),
  ]
  return {
    enter: (folder) => [...into, `--wdns=${folder ?? '/'}`, '--', ...powerless],
    close: () => {
      closed = true
      holder.stdin.end()
    },
  }
}

let networkless: readonly string[] | null = null

/** The words before a command that is to have no network; none where the system does not allow that. */
export function withoutNetwork(): readonly string[] {
  if (networkless) return networkless
  const words = ['unshare', ...(asRoot() ? [] : ['--user', '--map-root-user']), '--net', '--']
  const allowed = spawnSync(words[0] ?? '', [...words.slice(1), 'true'], { stdio: 'ignore' }).status === 0
  networkless = allowed ? words : []
  return networkless
}
