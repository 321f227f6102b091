import { MutationObserver } from '@tanstack/react-query'
import type { StoreApi } from 'zustand'
import { createStore } from 'zustand'
import type { Schemas } from '../api/client'
import { answer, api, Refused, troubleWords, Unreachable } from '../api/client'
import { client } from '../save/client'
import { lost, reached } from '../api/connection'
import { device, forget, keep, leftBehind, shared } from '../save/kept'
import type { Command, CommandKind, Payload } from './core/fold'
import { anchor, heed, steadyNow } from './steady'

export type LeadView = Schemas['LeadView']
type News = Schemas['LeadNews']

export interface Held {
  lead: LeadView
  /** Taps that the server has not got yet. */
  unsent: Command[]
}

export interface Keeping {
  held: Held | null
  problem: Error | null
  connected: boolean
  /** Why a tap was refused; empty: none was. */
  trouble: string
  /** Taps made here while another screen led, which wait for a word: send them after all, or leave them. */
  asked: Command[] | null
  /** For how long this machine slept, in milliseconds; 0: it did not, or that is no longer news. */
  slept: number
}

interface Tick {
  wall: number
  moment: number
}

/** A tap that waited longer than this was made while the server was away. */
const WAITED = 3000
/** So much more on the wall clock than on the monotonic one: the machine slept, or its clock was set. */
const GAP = 2000

/** The server is gone when it was silent for so long: it gives a sign every two seconds. */
const SILENCE = 4500
const LOOK = 500

const owed = (unsent: Command[], stored: Command[]) =>
  unsent.filter((command) => !stored.some((known) => known.id === command.id))

/** Two skips so close together, in milliseconds, were one tap. */
const DOUBLE = 600

const isDouble = (kind: CommandKind, { lead, unsent }: Held) => {
  const last = unsent.at(-1) ?? lead.commands.at(-1)
  return kind === 'skip' && last?.kind === 'skip' && steadyNow() - last.at < DOUBLE
}

/** Keeps the lead of a session going: with the server or without, on this screen and on others. */
export class LeadKeeper {
  readonly store: StoreApi<Keeping>
  private readonly sender: MutationObserver<void, Error, void>
  private stops: (() => void)[] = []
  /** What the stream said last: it may be ahead of an answer that is still on its way. */
  private news: News | null = null

  /** @param role whoever leads sees and sends taps; a wall only looks on */
  constructor(
    private readonly session: string,
    private readonly role: 'lead' | 'wall' = 'lead',
  ) {
    this.store = createStore<Keeping>(() => ({
      held: null,
      problem: null,
      connected: true,
      trouble: '',
      asked: null,
      slept: 0,
    }))
    this.sender = new MutationObserver<void, Error, void>(client, {
      mutationKey: ['taps', session],
      scope: { id: `taps:${session}` },
      mutationFn: () => this.deliver(),
    })
  }

  start() {
    void this.load()
    this.stops = [
      this.sender.subscribe((result) => {
        if (result.isError) this.store.setState({ trouble: troubleWords(result.error) })
        else if (result.isSuccess) this.store.setState({ trouble: '' })
      }),
      this.follow(),
    ]
  }

  stop() {
    for (const stop of this.stops) stop()
    this.stops = []
  }

  send = (kind: CommandKind, payload?: Payload) => {
    const { held } = this.store.getState()
    if (!held || this.role === 'wall' || isDouble(kind, held)) return
    const command: Command = { id: crypto.randomUUID(), kind, at: steadyNow(), device, ...(payload && { payload }) }
    this.tick()
    this.hold({ ...held, unsent: [...held.unsent, command] })
  }

  /** What becomes of taps that were made here while another screen led. */
  answerAsked = (send: boolean) => {
    const { held, asked } = this.store.getState()
    this.store.setState({ asked: null })
    if (!held || !asked) return
    this.hold({ ...held, unsent: send ? held.unsent : held.unsent.filter((c) => !asked.some((a) => a.id === c.id)) })
  }

  sleepSeen = () => this.store.setState({ slept: 0 })

  /** Notes where the class is, so that a reload without the server finds its place. */
  tick = () => shared.keep('tick', this.session, { wall: Date.now(), moment: steadyNow() } satisfies Tick)

  /** The lead as the server has it; without the server, as this browser last knew it. */
  private async load() {
    try {
      const lead = await this.fetch()
      const before = this.store.getState().held
      if (!before) anchor(Math.max(lead.now, this.remembered()))
      // Taps on a lead that another one took the place of are still meant, but a class is started once.
      const mine =
        before?.lead.id === lead.id ? before.unsent : (before?.unsent ?? []).filter((c) => c.kind !== 'start')
      this.hold({ lead, unsent: owed([...(await this.left(lead.id)), ...mine], lead.commands) })
      this.store.setState({ connected: true, problem: null })
      if (this.news?.lead === lead.id) this.settle(this.news.commands)
    } catch (error) {
      await this.loadWithout(error as Error)
    }
  }

  private async fetch(): Promise<LeadView> {
    const params = { params: { path: { id: this.session } } }
    if (this.role === 'lead') return answer(api.POST('/api/sessions/{id}/lead', params))
    const wall = await answer(api.GET('/api/wall/{id}', params))
    return { ...wall, id: wall.lead ?? '', sessionId: this.session, classId: '' }
  }

  private async loadWithout(error: Error) {
    const known = shared.read<LeadView>(this.role, this.session)
    if (this.store.getState().held) return
    if (!known || !(error instanceof Unreachable)) {
      this.store.setState({ problem: error })
      return
    }
    anchor(this.remembered())
    this.hold({ lead: known, unsent: owed(await this.left(known.id), known.commands) })
    this.store.setState({ connected: false })
  }

  /**
   * The time of the class by what this browser last noted. A wall clock that was set back since is passed over; one that
   * went on while the machine slept is right, though no monotonic clock has seen it.
   */
  private remembered(): number {
    const tick = shared.read<Tick>('tick', this.session)
    return tick ? tick.moment + Math.max(0, Date.now() - tick.wall) : 0
  }

  /** Taps of a tab that is gone. */
  private async left(lead: string): Promise<Command[]> {
    return (await leftBehind<Command[]>('taps', lead)).flatMap(({ value }) => value)
  }

  private hold(held: Held) {
    shared.keep(this.role, this.session, held.lead)
    if (held.unsent.length > 0) keep('taps', held.lead.id, held.unsent)
    else forget('taps', held.lead.id)
    this.store.setState({ held })
    const waits = this.store.getState().asked !== null
    if (held.unsent.length > 0 && !waits && !this.sender.getCurrentResult().isPending) {
      void this.sender.mutate().catch(() => undefined)
    }
  }

  /** Takes what the server has of the lead. Taps are only ever added: a shorter list is an older one, that came late. */
  private settle(commands: Command[]) {
    const { held } = this.store.getState()
    if (!held || commands.length < held.lead.commands.length) return
    this.hold({ lead: { ...held.lead, commands }, unsent: owed(held.unsent, commands) })
    this.store.setState({ connected: true })
  }

  private async deliver() {
    for (
      let held = this.store.getState().held;
      held && held.unsent.length > 0 && !this.store.getState().asked;
      held = this.store.getState().held
    ) {
      const { lead, unsent } = held
      try {
        const { commands } = await answer(
          api.POST('/api/leads/{id}/commands', {
            params: { path: { id: lead.id } },
            body: { expected: lead.commands.length, commands: unsent },
          }),
        )
        this.settle(commands)
      } catch (error) {
        await this.refused(error, unsent)
      }
    }
  }

  private async refused(error: unknown, sent: Command[]) {
    if (!(error instanceof Refused) || error.status >= 500) throw error
    // Another screen led meanwhile: what it did came first, ours follows, unless ours is old: then somebody must say so.
    if (error.status === 409 && Array.isArray(error.problem.commands)) {
      const theirs = (error.problem.commands as Command[]).filter((c) => c.device !== device && c.kind !== 'note')
      const old = sent.filter((c) => c.kind !== 'note' && steadyNow() - c.at > WAITED)
      if (old.length > 0 && theirs.some((c) => c.at > old[0]!.at)) this.store.setState({ asked: old })
      this.settle(error.problem.commands as Command[])
    } else if (error.status === 409 && error.problem.open) {
      await this.load()
    } else {
      const { held } = this.store.getState()
      if (held) this.hold({ ...held, unsent: owed(held.unsent, sent) })
      throw error
    }
  }

  /** Hears what other screens do, and whether the server is still there. One stream a tab. */
  private follow(): () => void {
    let last = performance.now()
    const stream = new EventSource(
      this.role === 'lead' ? `/api/sessions/${this.session}/events` : `/api/wall/${this.session}/events`,
    )
    const sign = () => {
      last = performance.now()
      if (this.store.getState().connected) return
      reached()
      this.store.setState({ connected: true })
    }
    stream.addEventListener('beat', (event: MessageEvent<string>) => {
      sign()
      heed((JSON.parse(event.data) as News).now)
    })
    stream.addEventListener('lead', (event: MessageEvent<string>) => {
      sign()
      const news = JSON.parse(event.data) as News
      heed(news.now)
      this.news = news
      const { held } = this.store.getState()
      if (held && news.lead === held.lead.id) this.settle(news.commands)
      else if (held && news.lead) void this.load()
    })
    let [wall, ran] = [Date.now(), performance.now()]
    const timer = setInterval(() => {
      const [wallNow, ranNow] = [Date.now(), performance.now()]
      const gap = wallNow - wall - (ranNow - ran)
      const stood = ranNow - ran - LOOK
      ;[wall, ran] = [wallNow, ranNow]
      if (gap > GAP) void this.woke(gap)
      else if (stood > 90_000) this.store.setState({ slept: stood })
      if (performance.now() - last < SILENCE || !this.store.getState().connected) return
      lost()
      this.store.setState({ connected: false })
    }, LOOK)
    return () => {
      clearInterval(timer)
      stream.close()
    }
  }

  /** The server says what the time is; where it cannot, the wall clock went on while this machine slept. */
  private async woke(gap: number) {
    const before = steadyNow()
    try {
      anchor((await answer(api.GET('/api/wall/time'))).now)
    } catch {
      anchor(before + gap)
    }
    if (steadyNow() - before > GAP) this.store.setState({ slept: gap })
  }
}
