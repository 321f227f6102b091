import { ActionIcon } from '@mantine/core'
import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useContext } from 'react'
import type { Move, PlanOption, PlanStation, Schemas } from '../../api/client'
import { answer, api } from '../../api/client'
import { useClassEditor } from '../editor/context'
import css from './Build.module.css'
import { inOrder, lacking, mainOption, partId, setStation } from '../../plan/edit'
import { copyOfOption } from '../../plan/ids'
import { MoveSelect } from './MoveSelect'
import { Thumb } from '../../ui/FigureView'
import { PicturesContext } from './usePictures'
import { tierWord } from '../../ui/words'

type Proposal = Schemas['ProposedOption']

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
  const { change, plan, session } = useClassEditor()
  const pictures = useContext(PicturesContext)
  const main = mainOption(station)
  const block = plan.blocks.find((b) => b.stations?.some((s) => s.id === station.id))
  // Tried against the main option as it is done, with the weights of the room.
  const proposed =
    useQuery({
      queryKey: ['proposals', block, plan.moves, partId(station), session?.id],
      queryFn: () =>
        answer(
          api.POST('/api/plans/proposals', {
            body: { block: block!, station: partId(station), moves: plan.moves ?? [], session: session?.id ?? null },
          }),
        ),
      enabled: main !== undefined && block !== undefined,
      placeholderData: keepPreviousData,
      staleTime: Infinity,
      retry: false,
    }).data ?? []
  const offers = (tier: PlanOption['tier']) => proposed.filter((proposal) => proposal.tier === tier)
  const setOptions = (label: string, next: (options: PlanOption[]) => PlanOption[]) =>
    change(`${label} ${station.id}`, (draft) => ({
      ...draft,
      plan: setStation(draft.plan, partId(station), (old) => ({ ...old, options: next(old.options) })),
    }))
  const add = (proposal: Proposal) => setOptions('add option', (options) => [...options, copyOfOption(proposal.option)])
  const lacks = (tier: PlanOption['tier']) => !station.options.some((option) => option.tier === tier)

  return (
    <div className={css.options}>
      {lacks('harder') && <Offers tier="harder" proposals={offers('harder')} onAdd={add} />}
      {inOrder(station.options).map(({ option, index }) => {
        return (
          <div key={partId(option)} className={css.option} data-tier={option.tier}>
            <span className={css.pose}>
              {pictures?.get(partId(option)) && <Thumb figure={pictures.get(partId(option))!} />}
            </span>
            <span className={css.tier}>{tierWord(option.tier)}</span>
            <MoveSelect
              moves={moves}
              value={option.move}
              label={`${tierWord(option.tier)} option`}
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
              {trades[index] && <em>{trades[index]}</em>}
            </span>
            {option.tier !== 'main' && (
              <ActionIcon
                variant="subtle"
                size={22}
                aria-label={`Remove the ${tierWord(option.tier)} option`}
                title={`Remove the ${tierWord(option.tier)} option`}
                onClick={() => setOptions('remove option', (options) => lacking(options, partId(option)))}
              >
                ×
              </ActionIcon>
            )}
          </div>
        )
      })}
      {lacks('easier') && <Offers tier="easier" proposals={offers('easier')} onAdd={add} />}
      {main && station.options.length < 9 && (
        <AddOption
          missing={(['harder', 'easier'] as const).filter((tier) => lacks(tier))}
          instead={offers('instead')}
          onPropose={add}
          onAdd={(tier) => setOptions('add option', (options) => [...options, { tier, move: main.move }])}
        />
      )}
    </div>
  )
}

interface OffersProps {
  tier: string
  proposals: Proposal[]
  onAdd: (proposal: Proposal) => void
}

/** A few options of a tier that the station lacks, the best first. */
function Offers({ tier, proposals, onAdd }: OffersProps) {
  return proposals.map((proposal) => (
    <div className={css.option} key={proposal.words}>
      <span />
      <span className={css.tier}>{tierWord(tier)}</span>
      <button type="button" className={css.offer} title={proposal.why} onClick={() => onAdd(proposal)}>
        + {proposal.words}
      </button>
    </div>
  ))
}

/** One more option, done like the main one until it is changed. */
interface AddOptionProps {
  missing: PlanOption['tier'][]
  /** For other kit, another position, or somebody to be careful with. */
  instead: Proposal[]
  onAdd: (tier: PlanOption['tier']) => void
  onPropose: (proposal: Proposal) => void
}

function AddOption({ missing, instead, onAdd, onPropose }: AddOptionProps) {
  return (
    <div className={css.addOption}>
      {instead.map((proposal) => (
        <button
          key={proposal.words}
          type="button"
          className={css.quiet}
          title={proposal.why}
          onClick={() => onPropose(proposal)}
        >
          + Alternative: {proposal.words}
        </button>
      ))}
      {[...missing, 'instead' as const].map((tier) => (
        <button key={tier} type="button" className={css.quiet} onClick={() => onAdd(tier)}>
          + Your own {tier} option
        </button>
      ))}
    </div>
  )
}

/** The words of an option without the name that the list beside it already shows. */
const manner = (words: string | undefined, name: string | undefined) =>
  words && name && words.startsWith(`${name}, `) ? <span>{words.slice(name.length + 2)}</span> : null
