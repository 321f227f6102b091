import { useReducedMotion } from '@mantine/hooks'
import type { Schemas } from '../../api/client'
import { countAt } from '../../leading/core/count'
import type { Clock } from '../../leading/useClock'
import { pace, useFilm } from '../../leading/useFilm'
import type { Lead } from '../../leading/useLead'
import { useSceneClock } from '../../leading/useSceneClock'
import { FamilyMark } from '../../ui/FamilyMark'
import { FilmView } from '../../ui/FigureView'
import { clock as clockWords, spoken } from '../../ui/time'
import css from './Stage.module.css'
import { pictureOf, Pose, StationCards, usePictures } from './StationCards'
import { tierWord } from '../../ui/words'

interface Props {
  lead: Lead
  clock: Clock
}

/** What is on: the move and its part, the side and the hand, the count and the time; outside work, of what comes next. */
export function Now({ lead, clock }: Props) {
  const { script } = lead
  const { scene, phase, waiting } = clock
  const cards = scene.cards.map((card) => script.cards[card]!)
  const single = cards.length === 1 ? cards[0] : undefined
  const isAhead = scene.ahead && scene.title !== scene.headline
  return (
    <section className={css.now} aria-label="Now">
      <div className={css.heads}>
        <h1 className={isAhead ? css.kicker : css.headline} data-kind={scene.kind}>
          {!isAhead && single && scene.kind === 'work' && <FamilyMark family={single.family} size={44} />}
          {scene.headline}
        </h1>
        {isAhead && (
          <h2 className={css.headline} data-ahead="true" data-testid="ahead">
            <small>next</small> {scene.title}
          </h2>
        )}
        <SideBadge scene={scene} className={css.badge} />
        <p className={css.target}>
          {[scene.target, scene.load].filter(Boolean).join(' · ')}
          {scene.others && <span>{scene.others}</span>}
          {scene.mirrorSide && <span>{scene.mirrorSide}</span>}
        </p>
        {waiting && <p className={css.gate}>Press Go when you are ready.</p>}
        {scene.say && <p className={css.say}>Say: {scene.say}</p>}
        {single && <Words card={single} />}
        {cards.length > 1 && <StationCards cards={cards} session={lead.session} />}
      </div>
      <div className={css.beside}>
        <Times clock={clock} />
        {phase === 'paused' && (
          <p className={css.paused} role="status">
            Paused
          </p>
        )}
        {single && <Picture lead={lead} clock={clock} card={single} />}
      </div>
    </section>
  )
}

/** Which side, and the hand that holds the weight; nothing where both work. */
export function SideBadge({ scene, className }: { scene: Schemas['Scene']; className?: string }) {
  if (!scene.sideWords && !scene.handBrief) return null
  return (
    <p className={className}>
      {scene.sideWords && <b data-testid="side">{scene.sideWords}</b>}{' '}
      {scene.handBrief && (
        <b data-testid="hand" aria-label={scene.hand}>
          {scene.handBrief}
        </b>
      )}
    </p>
  )
}

/** The count, big, where reps are counted, with the seconds small; else the seconds. */
function Times({ clock }: { clock: Clock }) {
  const { scene, phase, shown, left, into, waiting } = clock
  const count = phase === 'ready' || waiting ? null : countAt(scene, into)
  return (
    <div className={css.times} data-counted={count !== null}>
      {count !== null && (
        <b
          className={css.count}
          data-testid="count"
          aria-label={scene.countsDown ? `${count} reps to go` : `rep ${count}`}
        >
          {count}
        </b>
      )}
      <div
        className={css.clock}
        data-testid="clock"
        data-last={phase === 'running' && left <= 3 && scene.kind === 'work'}
        role="timer"
        aria-label={spoken(shown)}
      >
        {shown < 60 ? shown : clockWords(shown)}
      </div>
    </div>
  )
}

/** The film of what is shown, at the tempo of the part and by the clock of the class. */
function Picture({ lead, clock, card }: Props & { card: Schemas['StationCard'] }) {
  const { scene } = clock
  const still = useReducedMotion()
  const filmed = useFilm(lead.session, card)
  const film = clock.phase !== 'ready' && !still ? filmed?.film : undefined
  const seconds = useSceneClock(lead, filmed && scene.kind === 'work' ? pace(filmed, scene.repSeconds) : 1)
  const pictures = usePictures(lead.session)
  return (
    <span className={css.pose} data-moving={film ? true : undefined} data-testid="film" data-shows={shows(card)}>
      {film ? (
        <FilmView film={film} alt={card.name} clock={seconds} />
      ) : (
        <Pose figure={pictureOf(pictures, card.option, card)} />
      )}
    </span>
  )
}

/** What to say and to watch, and the options with what is otherwise in them. */
function Words({ card }: { card: Schemas['StationCard'] }) {
  return (
    <section className={css.words} aria-label="Options">
      {card.cue && <p className={css.cue}>{card.cue}</p>}
      {card.watch && (
        <p>
          <b>Watch:</b> {card.watch}
        </p>
      )}
      {(card.options?.length ?? 0) > 0 && (
        <dl className={css.ways}>
          {card.options!.map((option) => (
            <div key={option.id}>
              <dt>{tierWord(option.tier)}</dt>
              <dd>{option.differs}</dd>
            </div>
          ))}
        </dl>
      )}
      <p className={css.main}>{card.main}</p>
    </section>
  )
}

/** Which drawing this is: the option, the part of its dose, the side, and from where. */
export const shows = ({ option, part, side, view }: Schemas['StationCard']) =>
  [option, part ?? 'whole', side, view ?? 'own'].join(' ')
