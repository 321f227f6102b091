import type { StoreApi } from 'zustand'
import { createStore } from 'zustand'
import type { Booking, Evaluation, Fault, Plan, Schemas } from '../../api/client'
import { Refused, troubleWords } from '../../api/client'
import { look } from '../../api/look'
import { onReached } from '../../api/connection'

/** Figures of options, by their ids. */
export type Pictures = Map<string, Schemas['Figure']>

/** What is known of a class, each part with the class of which it was said. */
export interface Known {
  evaluation: Evaluation | null
  faults: Fault[]
  checks: { plan: Plan; held: string; found: Schemas['LookChecks'] } | null
  offers: { plan: Plan; held: string; list: Schemas['RepairOffer'][]; untried: number } | null
  fit: { plan: Plan; answer: Schemas['FitAnswer'] } | null
  pictures: Pictures | undefined
  /** Why the last look found nothing. */
  trouble: string
}

/** Where and when the class is held whose screens these are. */
export interface Occasion {
  session: string
  booking: Booking
}

/** By this it is told whether what was found is of the booking that is shown. */
export const heldAs = (booking: Booking | null) => JSON.stringify(booking)

const LOOKS_AFTER = 10
const SETTLES_WITHIN = 1500

/**
 * Looks at a class as it stands on the screen: one request an edit, answered part by part. Whatever is asked for later ends what was
 * asked before, so that an older answer never takes the place of a newer one.
 */
export class Looker {
  readonly store: StoreApi<Known>
  private evaluated: Plan
  private drawn = ''
  private timer: ReturnType<typeof setTimeout> | undefined
  private asking: AbortController | null = null
  private occasion: Occasion | null = null
  private asked: { plan: Plan; occasion: Occasion | null } | null = null
  private edit = 0
  private readonly wanted = { figures: 0, fit: 0 }

  constructor(
    plan: Plan,
    evaluation: Evaluation | null,
    faults: Fault[],
    private readonly now: () => { plan: Plan; version: number },
  ) {
    this.evaluated = plan
    this.store = createStore<Known>(() => ({
      evaluation,
      faults,
      checks: null,
      offers: null,
      fit: null,
      pictures: undefined,
      trouble: '',
    }))
    // What could not be asked while nobody answered is asked when somebody does.
    onReached(() => this.store.getState().trouble !== '' && this.again())
  }

  /** For whom and when the class is judged. */
  about(occasion: Occasion | null) {
    if (JSON.stringify(occasion) === JSON.stringify(this.occasion)) return
    this.occasion = occasion
    this.look()
  }

  /** Something is shown that is looked up only then; ends with what it returns. */
  want(what: keyof typeof this.wanted): () => void {
    this.wanted[what]++
    if (this.wanted[what] === 1) this.again()
    return () => void this.wanted[what]--
  }

  /** What does not stand in the class has changed, such as who has which care. */
  again = () => {
    this.asked = null
    this.look()
  }

  /** It is known already what the class adds up to. */
  take(plan: Plan, evaluation: Evaluation) {
    this.evaluated = plan
    this.store.setState({ evaluation, faults: [] })
  }

  /** Added up as the class stands now; as it was added up last where that takes too long, or has faults. */
  settled = (): Promise<Evaluation | null> =>
    new Promise((resolve) => {
      const started = Date.now()
      const wait = () => {
        const { evaluation } = this.store.getState()
        if (this.now().plan === this.evaluated || Date.now() - started > SETTLES_WITHIN) resolve(evaluation)
        else setTimeout(wait, LOOKS_AFTER)
      }
      wait()
    })

  look() {
    const { plan } = this.now()
    if (this.asked?.plan === plan && this.asked.occasion === this.occasion) return
    clearTimeout(this.timer)
    this.asking?.abort()
    this.asked = { plan, occasion: this.occasion }
    if (plan.blocks.length === 0) {
      // Nothing is no fault while a class is begun: there is only nothing to add up yet.
      this.evaluated = plan
      this.store.setState({ evaluation: null, faults: [], checks: null, offers: null, fit: null })
      return
    }
    this.timer = setTimeout(() => void this.send(plan, this.occasion), LOOKS_AFTER)
  }

  private async send(plan: Plan, occasion: Occasion | null) {
    const asking = new AbortController()
    this.asking = asking
    const shown = JSON.stringify(plan.blocks.map((block) => (block.stations ?? []).map((s) => [s.id, s.options])))
    // Only what a figure shows: a new target draws nothing anew.
    const figures = this.wanted.figures > 0 && shown !== this.drawn
    const body = {
      class: plan,
      version: this.now().version,
      edit: ++this.edit,
      ...(occasion ? { session: occasion.session, booking: occasion.booking } : {}),
      figures,
      fit: this.wanted.fit > 0,
    }
    try {
      await look(body, asking.signal, (part) => {
        if (this.asking === asking) this.hear(part, plan, heldAs(occasion?.booking ?? null), shown)
      })
      if (this.asking === asking) this.store.setState({ trouble: '' })
    } catch (error) {
      if (asking.signal.aborted || this.asking !== asking) return
      if (error instanceof Refused && error.status === 422) {
        this.evaluated = plan
        this.store.setState({ faults: error.problem.errors ?? [] })
      } else this.store.setState({ trouble: troubleWords(error) })
    }
  }

  private hear(part: Schemas['LookPart'], plan: Plan, held: string, shown: string) {
    if (part.evaluation) this.take(plan, part.evaluation)
    if (part.faults) {
      this.evaluated = plan
      this.store.setState({ faults: part.faults })
    }
    if (part.checks) this.store.setState({ checks: { plan, held, found: part.checks } })
    if (part.offers)
      this.store.setState({ offers: { plan, held, list: part.offers.offers, untried: part.offers.untried } })
    if (part.fit) this.store.setState({ fit: { plan, answer: part.fit } })
    if (part.figures) {
      this.drawn = shown
      this.store.setState({ pictures: new Map(part.figures.map((picture) => [picture.option, picture.figure])) })
    }
  }
}
