import { Button, Textarea } from '@mantine/core'
import { useQuery, keepPreviousData } from '@tanstack/react-query'
import { useState } from 'react'
import type { PlanBlock } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { partId } from '../../plan/edit'
import css from './Build.module.css'
import { useOpened } from './useOpen'
import { many } from '../../ui/words'
import { useStations } from './useStations'
import { Dialog } from '../../ui/Dialog'

interface Props {
  block: PlanBlock
  /** What was pasted already. */
  first?: string
  onClose: () => void
}

/** A list of moves, one a line, as it stands in somebody's notes: read into stations; a name that is none is asked about. */
export function PasteMoves({ block, first = '', onClose }: Props) {
  const { show } = useOpened()
  const maker = useStations()
  const [text, setText] = useState(first)
  const as = maker.like(block)
  const { data, error } = useQuery({
    queryKey: ['paste', text, as],
    queryFn: () =>
      answer(
        api.POST('/api/plans/paste', { body: { text, roundGivesSide: as.roundGivesSide, like: as.like ?? null } }),
      ),
    enabled: text.trim() !== '',
    placeholderData: keepPreviousData,
    retry: false,
  })
  const lines = text.trim() === '' ? [] : (data?.lines ?? [])
  const good = lines.flatMap((line) => (line.station ? [line.station] : []))
  const open = lines.length - good.length
  const { parts, left } = maker.spread(block, good)
  const taken = good.length - left

  /** The line says which move it means from now on. */
  const mean = (line: (typeof lines)[number], name: string) =>
    setText((before) => before.replace(line.text, line.dose ? `${name}: ${line.dose}` : name))

  return (
    <Dialog onClose={onClose} title={`Paste a list of moves into ${block.name}`} size="lg">
      <Textarea
        data-autofocus
        label="One move per line, with or without a target"
        placeholder={'Bodyweight squat 15\n12 reverse lunge each side\nHip thrust: 3 s hold + 10'}
        autosize
        minRows={4}
        maxRows={10}
        maxLength={20000}
        value={text}
        onChange={(event) => setText(event.currentTarget.value)}
      />
      {error && <p role="alert">The list could not be read. {troubleWords(error)}</p>}
      <ol className={css.pasted} aria-label="What was read">
        {lines.map((line, i) => (
          <li key={i} data-read={line.station !== null}>
            {line.station ? (
              <>
                <strong>{line.name}</strong> {line.dose || 'same target as the other stations'}
              </>
            ) : (
              <>
                <span>{line.trouble}</span>
                {line.choices.length > 0 && (
                  <span className={css.choices}>
                    Did you mean{' '}
                    {line.choices.map((choice) => (
                      <button
                        key={choice.id}
                        type="button"
                        className={css.quiet}
                        onClick={() => mean(line, choice.name)}
                      >
                        {choice.name}
                      </button>
                    ))}
                  </span>
                )}
              </>
            )}
          </li>
        ))}
      </ol>
      <Button
        mt="sm"
        disabled={taken === 0}
        onClick={() => {
          onClose()
          const first = maker.putAll(partId(block), good)
          if (first) show(`station-${first}`, 'card')
        }}
      >
        Add {many(taken, 'station', 'stations')}
        {open > 0 && `, leave ${open} out`}
      </Button>
      {parts.length > 1 && (
        <p role="status">
          This block has room for {many(parts[0]!, 'more station', 'more stations')}. {parts.slice(1).join(' and ')} go
          into {many(parts.length - 1, 'new block', 'new blocks')} like it.
        </p>
      )}
      {left > 0 && <p role="alert">{many(left, 'station', 'stations')} will not fit: the class has no more room.</p>}
      {(data?.left ?? 0) > 0 && text.trim() !== '' && (
        <p role="alert">{many(data!.left, 'line was', 'lines were')} not read. Paste them again after these.</p>
      )}
    </Dialog>
  )
}
