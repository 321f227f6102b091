import { Link } from 'react-router'
import { useClockFormat } from '../../api/queries'
import type { Bells } from '../../leading/useBells'
import type { Clock } from '../../leading/useClock'
import type { Lead } from '../../leading/useLead'
import { useMoment } from '../../leading/useNow'
import type { Ways } from '../../leading/useWays'
import { device } from '../../save/kept'
import { clock as clockWords, spoken, timeAt } from '../../ui/time'
import css from './Stage.module.css'
import { many } from '../../ui/words'

interface Props {
  lead: Lead
  clock: Clock
  ways: Ways
  bells: Bells
}

/** Where the class is, how it stands to its booked end, and what is not working. */
export function Top({ lead, clock, ways, bells }: Props) {
  const { scene, over, phase, position, end } = clock
  const { leader } = lead.state
  const left = useLeft(lead, phase)
  return (
    <header className={css.top}>
      <span className={css.round} data-testid="round">
        {over ? 'Done' : scene.blockName}
        {!over && scene.round && <b>{scene.round}</b>}
      </span>
      <Link to={`/classes/${lead.classId}/on/${lead.session}/build`} className={css.back}>
        ‹ {lead.script.title}
      </Link>
      <Trouble
        lead={lead}
        over={over}
        bells={bells}
        elsewhere={leader !== null && leader !== device && phase !== 'ready' && !over}
      />
      {left && (
        <span className={css.warning} role="status" data-testid="left-paused">
          Paused since {left}, past the booked end. Is it over?{' '}
          <button type="button" className={css.sound} onClick={() => lead.send('finish')}>
            End it
          </button>
        </span>
      )}
      {!over && (
        <span className={css.left}>
          <b data-testid="class-left" aria-label={`${spoken((end - position) / 1000)} to go in the class`}>
            {clockWords(Math.ceil((end - position) / 1000))}
          </b>{' '}
          left
        </span>
      )}
      <Hours
        endsAt={lead.endsAt}
        left={over ? 0 : end - position}
        started={phase !== 'ready'}
        over={over}
        behind={ways.behind}
      />
    </header>
  )
}

/** So long past its booked end a class that stands paused is taken to be over, and is asked about. In milliseconds. */
const LEFT = 15 * 60_000

/** Since when a class stands paused that everybody has left; null: it is not so. */
function useLeft({ state, endsAt }: Lead, phase: Clock['phase']): string | null {
  const now = useMoment()
  const format = useClockFormat()
  return phase === 'paused' && endsAt !== null && now - Math.max(state.at, endsAt) >= LEFT
    ? timeAt(state.at, format)
    : null
}

/** Seconds in few letters: 78 becomes "1 min 18 s". */
const short = (seconds: number) => (seconds < 60 ? `${seconds} s` : `${Math.floor(seconds / 60)} min ${seconds % 60} s`)

/** The time of day, when the class is over as it runs now, and how that stands to the slot. */
function Hours({
  endsAt,
  left,
  started,
  over,
  behind,
}: {
  endsAt: number | null
  left: number
  started: boolean
  over: boolean
  /** Milliseconds after the booked end; null: it has none, or was held on another day. */
  behind: number | null
}) {
  const now = useMoment()
  const format = useClockFormat()
  const off = behind === null ? 0 : Math.round(Math.abs(behind) / 1000)
  return (
    <span className={css.hours}>
      <b>{timeAt(now, format)}</b>
      {!over && endsAt !== null && <span>booked until {timeAt(endsAt, format)}</span>}
      {!over && started && (
        <span data-testid="ends" data-late={behind !== null && behind > 1000}>
          ends {timeAt(now + left, format)}
          {endsAt === null || behind === null
            ? ''
            : off <= 1
              ? ', on time'
              : `, ${short(off)} ${behind > 0 ? 'late' : 'early'}`}
        </span>
      )}
    </span>
  )
}

interface TroubleProps {
  lead: Lead
  over: boolean
  bells: Bells
  elsewhere: boolean
}

/** What the instructor must know is not working: sound, or the server. */
function Trouble({ lead, over, bells, elsewhere }: TroubleProps) {
  return (
    <span className={css.trouble}>
      {!lead.connected && (
        <span className={css.warning} role="status">
          Halterion is not answering. The class carries on
          {lead.unsent > 0 && `; ${many(lead.unsent, 'action', 'actions')} not sent yet`}.
        </span>
      )}
      {elsewhere && (
        <span className={css.warning} role="status">
          Another screen is leading.{' '}
          <button type="button" className={css.sound} onClick={() => lead.send('lead')}>
            Lead here
          </button>
        </span>
      )}
      {lead.asked > 0 && (
        <span className={css.warning} role="alert">
          Another screen was leading while this one was offline. {many(lead.asked, 'action was', 'actions were')} made
          here.{' '}
          <button type="button" className={css.sound} onClick={() => lead.answerAsked(true)}>
            Use them
          </button>{' '}
          <button type="button" className={css.sound} onClick={() => lead.answerAsked(false)}>
            Discard them
          </button>
        </span>
      )}
      {lead.slept > 0 && (
        <span className={css.warning} role="status">
          This computer was asleep for {spoken(lead.slept / 1000)}. The class has kept time.{' '}
          <button type="button" className={css.sound} onClick={lead.sleepSeen}>
            OK
          </button>
        </span>
      )}
      {lead.trouble && lead.connected && (
        <span className={css.warning} role="alert">
          That did not go through. {lead.trouble}
        </span>
      )}
      {over ? null : bells.on ? (
        <button type="button" className={css.sound} onClick={bells.turnOff}>
          Sound is on
        </button>
      ) : (
        <button type="button" className={css.soundOff} onClick={bells.turnOn}>
          {bells.waits ? 'Tap anywhere to turn sound back on' : 'Sound is off. Turn it on'}
        </button>
      )}
    </span>
  )
}
