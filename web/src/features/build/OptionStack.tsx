import { ActionIcon } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useContext } from 'react'
import type { Move, PlanOption, PlanStation } from '../../api/client'
import type { Proposal } from '../../api/queries'
import { stationStarter } from '../../api/queries'
import { useClassEditor } from '../editor/context'
import css from './Build.module.css'
import { inOrder, lacking, mainOption, partId, setStation } from '../../plan/edit'
import { copyOfOption, withoutId } from '../../plan/ids'
import { MoveSelect } from './MoveSelect'
import { Thumb } from '../../ui/FigureView'
import { PicturesContext } from './usePictures'

interface Props {
  station: PlanStation
  moves: Move[]
  /** Each option in words, in the order of the file; and what it asks instead of the main one. */
  words: string[]
  trades: string[]
  onSwapMain: (move: string) => Promise<void>
}

/** The options under each other: harder above the main one, easier below, with the reason where the ladder gave it. */
export function OptionStack({ station, moves, words, trades, onSwapMain }: Props) {
  const { change } = useClassEditor()
  const pictures = useContext(PicturesContext)
  const main = mainOption(station)
  const proposals = useQuery({ ...stationStarter(main?.move ?? ''), enabled: main !== undefined }).data?.proposals
  const setOptions = (label: string, next: (options: PlanOption[]) => PlanOption[]) =>
    change(`${label} ${station.id}`, (draft) => ({
      ...draft,
      plan: setStation(draft.plan, partId(station), (old) => ({ ...old, options: next(old.options) })),
    }))
  const add = (proposal: Proposal) => setOptions('add option', (options) => [...options, copyOfOption(proposal.option)])
  const lacks = (tier: PlanOption['tier']) => !station.options.some((option) => option.tier === tier)

  return (
    <div className={css.options}>
      {proposals?.harder && lacks('harder') && <Offer tier="harder" proposal={proposals.harder} onAdd={add} />}
      {inOrder(station.options).map(({ option, index }) => {
        const proposal =
          option.tier === 'easier' ? proposals?.easier : option.tier === 'harder' ? proposals?.harder : undefined
        const why = proposal && sameOption(proposal.option, option) ? proposal : undefined
        return (
          <div key={partId(option)} className={css.option} data-tier={option.tier}>
            <span className={css.pose}>
              {pictures?.get(partId(option)) && <Thumb figure={pictures.get(partId(option))!} />}
            </span>
            <span className={css.tier}>{option.tier}</span>
            <MoveSelect
              moves={moves}
              value={option.move}
              label={`${option.tier} option`}
              hideLabel
              onChange={(move) =>
                option.tier === 'main'
                  ? void onSwapMain(move)
                  : setOptions('option', (options) =>
                      options.map((o) => (o.id === option.id ? { id: partId(o), tier: o.tier, move } : o)),
                    )
              }
            />
            <span className={css.why}>
              {manner(words[index], moves.find((m) => m.id === option.move)?.name)}
              {why && (
                <em>
                  {why.why} ({why.dimension})
                </em>
              )}
              {!why && trades[index] && <em>{trades[index]}</em>}
            </span>
            {option.tier !== 'main' && (
              <ActionIcon
                variant="subtle"
                size={22}
                aria-label={`Remove the ${option.tier} option`}
                title={`Remove the ${option.tier} option`}
                onClick={() => setOptions('remove option', (options) => lacking(options, partId(option)))}
              >
                ×
              </ActionIcon>
            )}
          </div>
        )
      })}
      {proposals?.easier && lacks('easier') && <Offer tier="easier" proposal={proposals.easier} onAdd={add} />}
      {main && station.options.length < 9 && (
        <AddOption
          missing={(['harder', 'easier'] as const).filter((tier) => lacks(tier))}
          instead={
            proposals?.instead && !station.options.some((o) => o.move === proposals.instead?.option.move)
              ? proposals.instead
              : undefined
          }
          onPropose={add}
          onAdd={(tier) => setOptions('add option', (options) => [...options, { tier, move: main.move }])}
        />
      )}
    </div>
  )
}

function Offer({ tier, proposal, onAdd }: { tier: string; proposal: Proposal; onAdd: (proposal: Proposal) => void }) {
  return (
    <div className={css.option}>
      <span />
      <span className={css.tier}>{tier}</span>
      <button type="button" className={css.offer} onClick={() => onAdd(proposal)}>
        + {proposal.name}: {proposal.why} ({proposal.dimension})
      </button>
    </div>
  )
}

/** One more option, done like the main one until it is changed. */
interface AddOptionProps {
  missing: PlanOption['tier'][]
  /** As hard, for other kit or another position. */
  instead?: Proposal
  onAdd: (tier: PlanOption['tier']) => void
  onPropose: (proposal: Proposal) => void
}

function AddOption({ missing, instead, onAdd, onPropose }: AddOptionProps) {
  return (
    <div className={css.addOption}>
      {instead && (
        <button type="button" className={css.quiet} title={instead.why} onClick={() => onPropose(instead)}>
          + instead: {instead.name} ({instead.dimension})
        </button>
      )}
      {[...missing, 'instead' as const].map((tier) => (
        <button key={tier} type="button" className={css.quiet} onClick={() => onAdd(tier)}>
          + {tier} option of your own
        </button>
      ))}
    </div>
  )
}

/** The words of an option without the name that the list beside it already shows. */
const manner = (words: string | undefined, name: string | undefined) =>
  words && name && words.startsWith(`${name}, `) ? <span>{words.slice(name.length + 2)}</span> : null

const sorted = (option: PlanOption) =>
  JSON.stringify(Object.entries(withoutId(option)).sort(([a], [b]) => (a < b ? -1 : 1)))

const sameOption = (a: PlanOption, b: PlanOption) => sorted(a) === sorted(b)
