import { beforeEach, expect, test, vi } from 'vitest'
import { network } from './network'

const disk = vi.hoisted(() => new Map<string, unknown>())
vi.mock('idb-keyval', () => ({
  createStore: () => ({}),
  entries: () => Promise.resolve([...disk]),
  set: (word: string, sound: unknown) => Promise.resolve(disk.set(word, sound)),
  del: (word: string) => Promise.resolve(disk.delete(word)),
}))

/** What a browser plays, in order; each ends as soon as it is asked to. */
class Player {
  static played: { src: string; volume: number }[] = []
  volume = 1
  src = ''
  onended: () => void = () => undefined
  play() {
    Player.played.push({ src: this.src, volume: this.volume })
    queueMicrotask(() => this.onended())
    return Promise.resolve()
  }
}

const sound = (of: string) => new Blob([of], { type: 'audio/webm' })
let data: string[] = []
let there = true

beforeEach(() => {
  vi.resetModules()
  vi.stubGlobal('Audio', Player)
  Player.played = []
  disk.clear()
  data = []
  there = true
  let count = 0
  URL.createObjectURL = () => `clip ${++count}`
  URL.revokeObjectURL = () => undefined
  network.asked = []
  network.answers = ({ method, path }) => {
    if (!there) return 'nobody'
    const word = decodeURIComponent(path.split('/')[3] ?? '')
    if (method === 'PUT') data.push(word)
    if (method === 'DELETE') data = data.filter((w) => w !== word)
    return path === '/api/clips' ? { json: data } : method === 'GET' ? { json: word } : { status: 204 }
  }
})

/** As a page that has just been opened. */
const fresh = () => import('../src/leading/clips')

test('what was recorded here is kept here and with the data, and can be taken out', async () => {
  const { keepClip, loadClips } = await fresh()
  expect(await keepClip('switch', sound('s'))).toBe(true)
  expect([[...disk.keys()], data]).toEqual([['switch'], ['switch']])
  expect(await keepClip('switch', null)).toBe(true)
  expect([disk.size, data, await loadClips()]).toEqual([0, [], []])
})

test('recorded while nobody answers: it is kept here, said, and brought when somebody does', async () => {
  there = false
  const { keepClip } = await fresh()
  expect(await keepClip('left', sound('l'))).toBe(false)
  expect([...disk.keys()]).toEqual(['left'])
  there = true
  vi.resetModules()
  expect(await (await fresh()).loadClips()).toEqual(['left'])
  expect(data).toEqual(['left'])
})

test('what another screen recorded comes here, and stays when nobody answers any more', async () => {
  data = ['right', 'rest']
  expect(await (await fresh()).loadClips()).toEqual(['right', 'rest'])
  vi.resetModules()
  there = false
  expect(await (await fresh()).loadClips()).toEqual(['right', 'rest'])
})

test('words are played one after the other, those not recorded are left out', async () => {
  const { keepClip, playClips } = await fresh()
  await keepClip('switch', sound('s'))
  await keepClip('left', sound('l'))
  expect(playClips(['switch', 'right', 'left'], 0.5)).toBe(true)
  await new Promise((resolve) => setTimeout(resolve, 20))
  expect(Player.played).toEqual([
    { src: 'clip 1', volume: 0.5 },
    { src: 'clip 2', volume: 0.5 },
  ])
  expect(playClips(['right'], 1)).toBe(false)
  expect(playClips([], 1)).toBe(false)
})
