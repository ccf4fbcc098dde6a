// A room for media programs, which read files that nobody vouches for: no network, no files but those that they are to
// read, no rights, and an account of their own where the system allows one. It is made once, of namespaces (Linux
// namespaces(7)), and every program is started inside it.
import { spawn, spawnSync } from 'node:child_process'
import { once } from 'node:events'
import { chownSync, existsSync, mkdirSync, readFileSync, realpathSync, writeFileSync } from 'node:fs'
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
# The accounts of this room are given from outside.
echo here
read given
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
const namespaces = ['--user', '--net', '--mount', '--ipc', '--uts'] as const
/**
 * Whom media programs run as when the server runs as root; only root may run anything as another. A number from the
 * range of accounts that last no longer than a service (61184 to 65519, systemd.exec(5), DynamicUser).
 */
const mediaAccount = 61_999
/**
 * Nothing may be done by right but to read what one is shown. The right holds for this room's user namespace, which all
 * accounts are mapped into, and so not for files by their handles (open_by_handle_at(2)).
 */
const readOnly = ['--bounding-set=-all,+dac_read_search', '--no-new-privs']
const powerless = (own: boolean): readonly string[] =>
  own
    ? [
        'setpriv',
        // Else access(2), which asks for the real account, does not count the right (capabilities(7)).
        '--securebits=+no_setuid_fixup',
        `--reuid=${mediaAccount}`,
        `--regid=${mediaAccount}`,
        '--clear-groups',
        '--inh-caps=-all,+dac_read_search',
        '--ambient-caps=-all,+dac_read_search',
        ...readOnly,
      ]
    : ['setpriv', '--inh-caps=-all', ...readOnly]
const buildMs = 10_000

/** Each place by the name it is known by, and by its real one, as links lead there. */
const places = (paths: readonly string[]): readonly string[] => [
  ...new Set(paths.filter((path) => existsSync(path)).flatMap((path) => [path, realpathSync(path)])),
]

/** Each account under its own number, as far as they are known here (user_namespaces(7), uid_map). */
function accounts(kind: 'uid' | 'gid'): { readonly map: string; readonly holdsMedia: boolean } {
  const known = readFileSync(`/proc/self/${kind}_map`, 'utf8')
    .trim()
    .split('\n')
    .map((line) => line.trim().split(/\s+/).map(Number))
  return {
    map: known.map(([first = 0, , count = 0]) => `${first} ${first} ${count}`).join('\n'),
    holdsMedia: known.some(([first = 0, , count = 0]) => mediaAccount >= first && mediaAccount < first + count),
  }
}

/** Null where the system does not allow it. `onLost` is called when the room is gone though nobody closed it. */
export async function openSandbox(
  { root, reads, writes }: SandboxFolders,
  onLost: () => void,
): Promise<Sandbox | null> {
  mkdirSync(root, { recursive: true })
  // Cards that are put in later are seen, as the mounts of the machine go on to come here.
  // It stays as long as its input is open: it ends with this process, however that ends.
  const holder = spawn(
    'unshare',
    [...namespaces, '--keep-caps', '--propagation', 'slave', '--', 'sh', '-c', build, 'sh', root].concat(
      places(reads),
      '--',
      places(writes),
    ),
    { stdio: ['pipe', 'pipe', 'ignore'], env: { PATH: process.env['PATH'] ?? '/usr/bin:/bin', LC_ALL: 'C' } },
  )
  holder.stdin.on('error', () => undefined)
  const ended = once(holder, 'exit').then(
    () => 'ended',
    () => 'not there',
  )
  const said = (): Promise<string> =>
    Promise.race([
      once(holder.stdout, 'data').then(([chunk]) => String(chunk as Buffer)),
      ended,
      delay(buildMs, 'too slow', { ref: false }),
    ]).catch(() => 'broken')
  const giveUp = (): null => {
    holder.kill('SIGKILL')
    return null
  }
  if (!(await said()).startsWith('here') || holder.pid === undefined) return giveUp()
  let own = false
  try {
    own = giveAccounts(holder.pid, writes)
  } catch {
    return giveUp()
  }
  holder.stdin.write('given\n')
  if (!(await said()).startsWith('ready')) return giveUp()
  let closed = false
  holder.once('exit', () => {
    if (!closed) onLost()
  })
  holder.unref()
  const into = ['nsenter', ...(asRoot() ? [] : ['--preserve-credentials']), ...namespaces, '--target', `${holder.pid}`]
  return {
    enter: (folder) => [...into, `--wdns=${folder ?? '/'}`, '--', ...powerless(own)],
    close: () => {
      closed = true
      holder.stdin.end()
    },
  }
}

/** Says which accounts a new user namespace knows; true if media programs have one of their own and may write there. */
function giveAccounts(pid: number, writes: readonly string[]): boolean {
  const give = (file: string, words: string): void => writeFileSync(`/proc/${pid}/${file}`, words)
  if (!asRoot()) {
    give('setgroups', 'deny')
    give('uid_map', `0 ${process.getuid?.()} 1`)
    give('gid_map', `0 ${process.getgid?.()} 1`)
    return false
  }
  const [users, groups] = [accounts('uid'), accounts('gid')]
  give('uid_map', users.map)
  give('gid_map', groups.map)
  if (!users.holdsMedia || !groups.holdsMedia) return false
  for (const folder of writes) chownSync(folder, mediaAccount, mediaAccount)
  return true
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
