import { Anchor, Button, Loader, NativeSelect } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import type { Schemas } from '../../api/client'
import { answer, api, Refused, troubleWords } from '../../api/client'
import { useOwnIds } from '../../api/queries'
import { ErrorNote } from '../../ui/ErrorNote'
import { FamilyMark } from '../../ui/FamilyMark'
import { FigureView, FilmView, FootMap } from '../../ui/FigureView'
import { Page } from '../../ui/Page'
import css from './Moves.module.css'
import { sentence, tierWord } from '../../ui/words'

type View = Schemas['View']

interface PictureProps {
  id: string
  option: Schemas['FiguredOption']
  moves: boolean
  view: View | ''
}

/** An option still or in motion, from where it is clearest or from where it is asked for. */
function Picture({ id, option, moves, view }: PictureProps) {
  const film = useQuery({
    queryKey: ['film', id, option.tier, view],
    queryFn: () =>
      answer(
        api.GET('/api/moves/{id}/film', {
          params: { path: { id }, query: { option: option.tier, view: view || undefined } },
        }),
      ),
    enabled: moves && option.figure !== null,
    staleTime: Infinity,
  })
  const turned = useQuery({
    queryKey: ['figure', id, option.tier, view],
    queryFn: () =>
      answer(
        api.GET('/api/moves/{id}/figure', {
          params: { path: { id }, query: { option: option.tier, view: view || undefined } },
        }),
      ),
    enabled: view !== '' && !moves && option.figure !== null,
    staleTime: Infinity,
  })
  const figure = (view && turned.data) || option.figure
  if (!figure) return <span />
  const failed = (moves && film.error) || (view && turned.error)
  return (
    <div className={css.figured}>
      {failed && <ErrorNote title={`This view could not be drawn. ${troubleWords(failed)}`} />}
      {moves && film.data ? <FilmView film={film.data} alt={figure.alt} /> : <FigureView figure={figure} />}
      {figure.map && <FootMap map={figure.map} />}
    </div>
  )
}

/** What the main option asks; of the others only what differs from it. */
function Demands({ option, main }: { option: Schemas['FiguredOption']; main: Schemas['FiguredOption'] | undefined }) {
  if (option.demand.length === 0) return null
  const asked = (of: string) => main?.demand.find((line) => line.of === of)?.value ?? 0
  const lines = option.demand.filter((line) =>
    option.tier === 'main' || !main ? line.value > 0 : line.value !== asked(line.of),
  )
  if (lines.length === 0) return option.tier === 'main' ? null : <span className={css.same}>same demands as main</span>
  return (
    <dl className={css.demand} aria-label="Demands, 0 to 5">
      {lines.map((line) => (
        <div key={line.of}>
          <dt>{line.of}</dt>
          <dd>
            <meter min={0} max={5} value={line.value} aria-hidden="true" /> {line.value}
          </dd>
        </div>
      ))}
    </dl>
  )
}

/** What is said, where it is felt and what to look for: the three things to know in front of people. */
function InShort({ cue, felt, fault }: { cue?: string; felt: string; fault?: Schemas['MovePage']['faults'][number] }) {
  return (
    <dl className={css.inShort}>
      {cue && (
        <div>
          <dt>Say</dt>
          <dd>“{cue}”</dd>
        </div>
      )}
      {felt && (
        <div>
          <dt>They feel it</dt>
          <dd>{sentence(felt)}</dd>
        </div>
      )}
      {fault && (
        <div>
          <dt>Watch for</dt>
          <dd>
            {fault.seen}: {fault.fix}
          </dd>
        </div>
      )}
    </dl>
  )
}

/** Whom an alternative helps, said to an instructor. */
const helps: Record<string, string> = {
  knees: 'kind to knees',
  back: 'kind to the back',
  wrists: 'no weight on the wrists',
  shoulder: 'kind to shoulders',
  hip: 'kind to hips',
  ankle: 'kind to ankles',
  balance: 'steadier',
  pregnancy: 'in pregnancy',
  jump: 'no jump',
  kit: 'other kit, or none',
  floor: 'not on the floor',
  variety: 'for a change',
}

/** One move: what it looks like, how it is done, what goes wrong, and how it is made easier or harder. */
export function MovePage() {
  const { move: id = '' } = useParams()
  const page = useQuery({
    queryKey: ['move', id],
    queryFn: () => answer(api.GET('/api/moves/{id}/page', { params: { path: { id } } })),
  })
  const own = useOwnIds().data?.includes(id) ?? false
  const [moves, setMoves] = useState(false)
  const [view, setView] = useState<View | ''>('')
  const move = page.data?.move

  if (page.isPending) return <Loader m="xl" aria-label="Fetching the move" />
  if (page.isError || !move) {
    const gone = page.error instanceof Refused && page.error.status === 404
    return (
      <ErrorNote
        title={gone ? 'This move does not exist.' : `The move could not be loaded. ${troubleWords(page.error)}`}
      >
        <Anchor component={Link} to="/moves">
          To all moves
        </Anchor>
      </ErrorNote>
    )
  }

  const rows: [string, string | null | undefined][] = [
    ['Getting in and out', move.getIn],
    ['Set-up', move.setUp],
    ['Movement', move.path],
    ['End position', move.end],
    ['Breathing', move.breath],
    ['One rep', move.rep],
    ['“Left” and “right” mean', move.sideMeans ? `the ${move.sideMeans}` : null],
    ['Usual tempo', move.tempo],
    ['Kit', move.kit.join(', ') || 'none'],
    ['Kit safety', move.kitSafety],
    ['What works', move.muscles],
    ['Where you feel it', move.felt],
    ...(move.elsewhere ?? []).map((e): [string, string] => [`If you feel it in the ${e.where}`, e.change]),
    ['If you feel nothing', move.notFelt],
    ['Check yourself', move.selfCheck],
    ['First be able to', move.readiness],
    ['Take care', move.cautions],
    ['Say', (move.cues ?? []).join(' · ') || null],
  ]
  const drawn = page.data.options.some((option) => option.figure !== null)
  const shown = new Set(page.data.options.map((option) => option.words))
  const more = page.data.offers.filter((offer) => !shown.has(`${offer.name}, ${offer.differs}`))

  return (
    <Page name={move.name}>
      <p className={css.back}>
        <Link to="/moves">‹ Moves</Link>
      </p>
      <div className={css.head}>
        <h1>
          <FamilyMark family={move.family} size={26} /> {move.name}
        </h1>
        {move.aliases.length > 0 && <p className={css.aliases}>also: {move.aliases.join(', ')}</p>}
        {own ? (
          <Button component={Link} variant="default" size="xs" to={`/moves/${id}/edit`}>
            Edit
          </Button>
        ) : (
          <Button component={Link} variant="default" size="xs" to={`/moves/new?from=${id}`}>
            Make my own version
          </Button>
        )}
        {drawn && (
          <>
            <Button variant="default" size="xs" aria-pressed={moves} onClick={() => setMoves(!moves)}>
              {moves ? 'Stop moving' : 'Show moving'}
            </Button>
            <NativeSelect
              aria-label="Seen from"
              size="xs"
              value={view}
              onChange={(event) => setView(event.currentTarget.value as View | '')}
            >
              <option value="">clearest view</option>
              <option value="side">from the side</option>
              <option value="front">from the front</option>
              <option value="quarter">front, at an angle</option>
              <option value="behind">back, at an angle</option>
            </NativeSelect>
          </>
        )}
      </div>
      {move.picture && <img className={css.photo} src={move.picture} alt={move.name} />}
      <ul className={css.options} aria-label="Harder, main, easier and alternative">
        {page.data.options.map((option) => (
          <li key={option.tier} data-tier={option.tier}>
            <Picture id={id} option={option} moves={moves} view={view} />
            <strong>{tierWord(option.tier)}</strong>
            <span>{option.words}</span>
            {option.why && <em>{option.why}</em>}
            <Demands option={option} main={page.data.options.find((o) => o.tier === 'main')} />
          </li>
        ))}
      </ul>
      <InShort cue={move.cues?.[0]} felt={move.felt ?? ''} fault={page.data.faults[0]} />
      {more.length > 0 && (
        <ul className={css.offers} aria-label="Other options">
          {more.map((offer) => (
            <li key={`${offer.tier}${offer.name}${offer.differs}`}>
              <strong>{tierWord(offer.tier)}</strong>{' '}
              {offer.option.move === id ? offer.differs : `${offer.name}: ${offer.differs}`}
              {offer.for && <em> ({helps[offer.for] ?? offer.for})</em>}
            </li>
          ))}
        </ul>
      )}
      {page.data.nothing && (
        <p className={css.legend}>No harder option: {page.data.nothing.replace(/^nothing harder: /, '')}.</p>
      )}
      {drawn && (
        <p className={css.legend}>
          Key positions side by side, working the right side. The arrow shows the movement, pale limbs are on the far
          side, shading shows where you should feel it. An average body, not yours. Demands (0 to 5) are an estimate
          from still positions.
        </p>
      )}
      <div className={css.columns}>
        <dl className={css.facts}>
          {rows
            .filter(([, words]) => words)
            .map(([name, words]) => (
              <div key={name}>
                <dt>{name}</dt>
                <dd>{words}</dd>
              </div>
            ))}
        </dl>
        <div>
          <h2 className={css.part}>Watch for</h2>
          <ul className={css.faults}>
            {page.data.faults.map((fault) => (
              <li key={fault.seen}>
                <strong>{fault.seen}</strong> {fault.fix}
                {fault.say && <q className={css.say}>{fault.say}</q>}
                {fault.words && (
                  <>
                    {' '}
                    If it does not go away:{' '}
                    {fault.move === id ? fault.words : <Link to={`/moves/${fault.move}`}>{fault.words}</Link>}.
                  </>
                )}
              </li>
            ))}
          </ul>
          <h2 className={css.part}>Used in</h2>
          {page.data.uses.length === 0 ? (
            <p>No class yet.</p>
          ) : (
            <ul className={css.faults}>
              {page.data.uses.map((use) => (
                <li key={use.class}>
                  <Link className={css.use} to={`/classes/${use.class}/build`}>
                    {use.title}
                  </Link>
                </li>
              ))}
            </ul>
          )}
          <p className={css.care}>
            Everything said in class is an offer. Stop if you feel pain, dizziness, chest discomfort or unusual
            breathlessness; if unsure, ask a doctor or midwife first. Local rules and your qualifications come first.
          </p>
        </div>
      </div>
    </Page>
  )
}
