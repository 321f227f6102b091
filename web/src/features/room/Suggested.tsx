import { Button } from '@mantine/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { many } from '../../ui/words'
import css from '../people/Progress.module.css'

type Line = Schemas['NamedSuggestion']

/** Who moves on tonight, and why: take all, or refuse any. */
export function Suggested({ session, onChanged }: { session: string; onChanged: () => void }) {
  const queries = useQueryClient()
  const [refused, setRefused] = useState<ReadonlySet<string>>(new Set())
  const [before, setBefore] = useState<Schemas['TakenBefore'][] | null>(null)
  const [trouble, setTrouble] = useState('')
  const query = useQuery({
    queryKey: ['suggestions', session],
    queryFn: () => answer(api.GET('/api/sessions/{id}/suggestions', { params: { path: { id: session } } })),
    staleTime: 0,
  })
  const all = query.data?.suggestions ?? []
  const open = all.filter((line) => !line.taken)
  const takeable = open.filter((line) => line.takeable)
  const changes = takeable.filter((line) => !refused.has(keyOf(line)))

  async function act(send: () => Promise<unknown>) {
    setTrouble('')
    try {
      await send()
      await queries.invalidateQueries({ queryKey: ['suggestions', session] })
      onChanged()
    } catch (error) {
      setTrouble(troubleWords(error))
    }
  }
  const take = (lines: Line[]) =>
    act(async () => {
      const taken = await answer(
        api.POST('/api/sessions/{id}/suggestions', {
          params: { path: { id: session } },
          body: { take: lines.map((line) => ({ person: line.of.person, station: line.of.station })) },
        }),
      )
      setBefore(taken.before)
    })
  const undo = () =>
    act(async () => {
      await answer(
        api.POST('/api/sessions/{id}/suggestions/back', {
          params: { path: { id: session } },
          body: { before: before ?? [] },
        }),
      )
      setBefore(null)
    })

  if (query.isError) return <p role="alert">The suggestions could not be loaded. {troubleWords(query.error)}</p>
  if (all.length === 0) return null
  return (
    <section className={css.suggested} aria-label="Suggested from the logs">
      <h2>Suggested from the logs</h2>
      <p>
        {open.length === 0
          ? 'Everything the logs suggest is planned already.'
          : `${many(open.length, 'suggestion', 'suggestions')}; for the rest it stays as last time.`}{' '}
        {changes.length > 0 && (
          <Button size="xs" onClick={() => void take(changes)}>
            Take {changes.length === takeable.length ? 'all' : changes.length}
          </Button>
        )}{' '}
        {before && before.length > 0 && (
          <Button size="xs" variant="default" onClick={() => void undo()}>
            Undo
          </Button>
        )}
      </p>
      {trouble && <p role="alert">{trouble}</p>}
      <ul>
        {open.map((line) => {
          const key = keyOf(line)
          const no = refused.has(key)
          return (
            <li key={key} data-taken={no}>
              <span>
                <b>{line.name}</b>, {line.stationName}: {line.of.next.reason}
                <small>
                  Last time {line.of.lastTime}. Suggested: {asked(line)}.
                </small>
              </span>
              {line.takeable ? (
                <Button
                  size="xs"
                  variant="subtle"
                  aria-label={`${no ? 'Take after all' : 'Refuse'}: ${line.name}, ${line.stationName}`}
                  onClick={() => {
                    const next = new Set(refused)
                    if (no) next.delete(key)
                    else next.add(key)
                    setRefused(next)
                  }}
                >
                  {no ? 'Take after all' : 'Refuse'}
                </Button>
              ) : (
                <small>No option at this station for it: add one on Build.</small>
              )}
            </li>
          )
        })}
      </ul>
    </section>
  )
}

const keyOf = (line: Line) => `${line.of.person} ${line.of.station}`

/** "Goblet squat, 10 reps, 12 kg". */
function asked(line: Line) {
  const { target, kg } = line.of.next
  const amount = target.reps != null ? `${target.reps} reps` : `${target.seconds ?? 0} s`
  return [line.words || 'left out', amount, kg != null && `${kg} kg`].filter(Boolean).join(', ')
}
