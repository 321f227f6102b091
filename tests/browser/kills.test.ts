import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, Server, test } from './studio'

test('what was acknowledged is there after every kill, whole', async ({ studio }) => {
  test.setTimeout(400_000)
  let saves = 0
  const kept: { id: string; version: number; title: string }[] = []
  const people: { id: string; note: string }[] = []
  const plan = (title: string) => ({
    format: 'halterion-class',
    version: 1,
    title,
    slotMinutes: 20,
    blocks: [
      {
        name: 'A',
        phase: 'main',
        stations: [{ dose: [{ kind: 'time', amount: 30 }], options: [{ tier: 'main', move: 'squat' }] }],
      },
    ],
  })
  const send = (method: string, path: string, body: unknown, version?: number) =>
    fetch(studio.address + path, {
      method,
      headers: { 'Content-Type': 'application/json', ...(version ? { 'If-Match': `"${version}"` } : {}) },
      body: JSON.stringify(body),
    })

  for (let kill = 0; kill < 12; kill++) {
    let going = true
    let number = 0
    const classes = async () => {
      while (going) {
        const title = `Kill ${kill}, ${number++}`
        const last = kept.at(-1)
        // Now a new class, now another version of the last one.
        if (last && number % 3 !== 0) {
          const answer = await send('PUT', `/api/classes/${last.id}`, { plan: plan(title) }, last.version)
          expect(answer.status).toBe(200)
          Object.assign(last, { version: ((await answer.json()) as { version: number }).version, title })
        } else {
          const answer = await send('POST', '/api/classes/file', plan(title))
          expect(answer.status).toBe(200)
          const made = (await answer.json()) as { id: string; version: number }
          kept.push({ id: made.id, version: made.version, title })
        }
        saves++
      }
    }
    const persons = async () => {
      while (going) {
        const note = `${kill}/${people.length}`
        const answer = await send('POST', '/api/people', { name: note })
        people.push({ id: ((await answer.json()) as { id: string }).id, note })
      }
    }
    // A request that the kill cuts off was not acknowledged: either outcome is right.
    const work = [classes(), persons()].map((p) =>
      p.catch((error: unknown) => expect(String(error)).toMatch(/fetch failed|terminated|JSON/)),
    )
    // Not before something was acknowledged, and each time at another moment of the work.
    const before = { saves, people: people.length }
    while (saves < before.saves + 2 || people.length < before.people + 2)
      await new Promise((resolve) => setTimeout(resolve, 5))
    await new Promise((resolve) => setTimeout(resolve, 7 * kill))
    const port = await studio.kill()
    going = false
    await Promise.all(work)
    await studio.start(port)

    const health = await fetch(`${studio.address}/api/health`)
    expect(health.ok, `after kill ${kill}`).toBe(true)
    const last = kept.at(-1)
    if (last) {
      const view = (await (await fetch(`${studio.address}/api/classes/${last.id}`)).json()) as {
        version: number
        plan: { title: string }
      }
      // A version whose answer the kill cut off may have come after the last acknowledged one.
      expect([last.version, last.version + 1]).toContain(view.version)
      if (view.version === last.version) expect(view.plan.title).toBe(last.title)
      last.version = view.version
      last.title = view.plan.title
    }
  }

  expect(saves).toBeGreaterThanOrEqual(24)
  expect(people.length).toBeGreaterThanOrEqual(24)
  for (const { id, title } of kept) {
    const view = (await (await fetch(`${studio.address}/api/classes/${id}`)).json()) as { plan: { title: string } }
    expect(view.plan.title).toBe(title)
  }
  const all = (await (await fetch(`${studio.address}/api/people`)).json()) as { id: string; name: string }[]
  for (const { id, note } of people) expect(all.find((p) => p.id === id)?.name).toBe(note)
})

type Json = Record<string, unknown>

interface Writer {
  name: string
  read: string
  /** What of the answer is the document, where it is one of many. */
  of?: (answer: Json & Json[]) => Json | undefined
  write?: string
  revision?: string
  body: (now: Json, n: number) => unknown
  said: (now: Json) => unknown
}

/** Every kind of document, as it is read, changed, and told apart by a number. */
async function writersOf(address: string): Promise<Writer[]> {
  const get = async <T>(path: string) => (await (await fetch(address + path)).json()) as T
  const [person] = await get<{ id: string }[]>('/api/people')
  const [room] = await get<{ id: string }[]>('/api/rooms')
  const { sessions } = await get<{ sessions: { id: string }[] }>('/api/sessions')
  const session = `/api/sessions/${sessions[0]!.id}`
  const made = await fetch(`${address}/api/circles`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name: 'n0', together: false, people: [] }),
  })
  const circle = ((await made.json()) as { id: string }).id
  const one = (id: string) => (all: Json[]) => all.find((item) => item.id === id)
  return [
    {
      name: 'a person',
      read: `/api/people/${person!.id}`,
      body: (now, n) => ({ ...now, note: `n${n}` }),
      said: (now) => now.note,
    },
    {
      name: 'a room',
      read: '/api/rooms',
      of: one(room!.id),
      write: `/api/rooms/${room!.id}`,
      body: ({ floor, stock }, n) => ({ name: `n${n}`, floor, stock }),
      said: (now) => now.name,
    },
    {
      name: 'a group',
      read: '/api/circles',
      of: one(circle),
      write: `/api/circles/${circle}`,
      body: (_, n) => ({ name: `n${n}`, together: false, people: [] }),
      said: (now) => now.name,
    },
    {
      name: 'the settings',
      read: '/api/settings',
      write: '/api/settings/preferences',
      revision: 'preferencesRevision',
      body: ({ preferences }, n) => ({ ...(preferences as Json), off: { 'time.idle': `n${n}` } }),
      said: (now) => (now.preferences as { off?: Json }).off?.['time.idle'],
    },
    {
      name: 'moves of one’s own',
      read: '/api/own-moves',
      body: (_, n) => ({ moves: [{ id: 'my-squat', name: 'My squat', family: 'squat', setUp: `n${n}` }] }),
      said: (now) => (now.moves as Json[])[0]?.setUp,
    },
    {
      name: 'a log',
      read: `${session}/log`,
      revision: 'version',
      body: (now, n) => ({ log: { rows: (now.rows as { row: Json }[]).map((r) => r.row), note: `n${n}` } }),
      said: (now) => now.note,
    },
    {
      name: 'a date',
      read: session,
      body: ({ booking }, n) => ({ booking: { ...(booking as Json), headCount: 20 + (n % 20) } }),
      said: (now) => `n${(now.booking as { headCount: number }).headCount - 20}`,
    },
  ]
}

test('whatever kind of record it is: what was acknowledged is there after a kill', async ({ demo }) => {
  test.setTimeout(400_000)
  const writers = await writersOf(demo.address)
  const last = new Map<Writer, number>()
  const now = async ({ read, of }: Writer) => {
    const answer = (await (await fetch(demo.address + read)).json()) as Json & Json[]
    return of ? of(answer)! : answer
  }
  for (let kill = 0; kill < 6; kill++) {
    let going = true
    const saves = new Map<Writer, number>()
    const work = writers.map(async (writer) => {
      for (let n = (last.get(writer) ?? 0) + 1; going; n++) {
        const before = await now(writer)
        const answer = await fetch(demo.address + (writer.write ?? writer.read), {
          method: 'PUT',
          headers: {
            'Content-Type': 'application/json',
            'If-Match': `"${String(before[writer.revision ?? 'revision'])}"`,
            'Change-Id': crypto.randomUUID(),
          },
          body: JSON.stringify(writer.body(before, n)),
        })
        const text = await answer.text()
        expect(answer.status, `${writer.name}: ${text}`).toBe(200)
        last.set(writer, n)
        saves.set(writer, (saves.get(writer) ?? 0) + 1)
      }
    })
    const settled = Promise.allSettled(work)
    // Not before each of them was told at least twice that a change is kept, however busy the machine is.
    const told = () => writers.every((writer) => (saves.get(writer) ?? 0) >= 2)
    const wrong = Promise.all(work).catch((reason: unknown) => String(reason))
    while (!told() && going) {
      const said = await Promise.race([wrong, new Promise((resolve) => setTimeout(resolve, 5))])
      expect(said, 'a change that was refused before anything was killed').toBeUndefined()
    }
    await new Promise((resolve) => setTimeout(resolve, 11 * kill))
    const port = await demo.kill()
    going = false
    for (const end of await settled)
      if (end.status === 'rejected') expect(String(end.reason)).toMatch(/fetch failed|terminated|JSON/)
    await demo.start(port)
    for (const writer of writers) {
      const n = last.get(writer)!
      // The one that the kill cut off may have come to be.
      const right = writer.name === 'a date' ? [`n${n % 20}`, `n${(n + 1) % 20}`] : [`n${n}`, `n${n + 1}`]
      const said = writer.said(await now(writer))
      expect(right, `${writer.name} after kill ${kill}`).toContain(said)
      last.set(writer, said === right[0] ? n : n + 1)
    }
  }
})

test('a kill in the middle of an update loses nothing: the next start finds the data as it was, or as it is to be', async () => {
  test.setTimeout(400_000)
  const before = readFileSync(new URL('../data/studio-schema-4.db', import.meta.url))
  for (const moment of [40, 120, 200, 280, 360, 440]) {
    const server = new Server(false)
    try {
      writeFileSync(join(server.folder, 'halterion.db'), before)
      // Killed so long after its first sign on the disk that it has begun, wherever it is by then.
      const begun = server.start().catch(() => undefined)
      while (!existsSync(join(server.folder, 'lock'))) await new Promise((resolve) => setTimeout(resolve, 2))
      await new Promise((resolve) => setTimeout(resolve, moment))
      await server.kill()
      await begun
      await server.start()
      expect((await fetch(`${server.address}/api/health`)).status, `${moment} ms`).toBe(200)
      const classes = (await (await fetch(`${server.address}/api/classes`)).json()) as { all: number }
      const people = (await (await fetch(`${server.address}/api/people`)).json()) as unknown[]
      expect([classes.all, people.length], `${moment} ms`).toEqual([4, 14])
      expect(readdirSync(server.folder).filter((f) => f.includes('.part'))).toEqual([])
    } finally {
      await server.dispose()
    }
  }
})
