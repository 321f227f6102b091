import { Anchor, Button, Loader } from '@mantine/core'
import { useParams } from 'react-router'
import { Link, useNavigate } from 'react-router'
import { Refused, troubleWords } from '../../api/client'
import { useLead } from '../../leading/useLead'
import { ErrorNote } from '../../ui/ErrorNote'
import { Stage } from './Stage'

/** Leads a session. It needs nothing but what it has once opened: no class, no list, and then no server. */
export function LeadPage() {
  const { session = '' } = useParams()
  return <OpenLead key={session} session={session} />
}

function OpenLead({ session }: { session: string }) {
  const { lead, problem } = useLead(session)
  const navigate = useNavigate()
  if (lead) return <Stage lead={lead} />
  if (!problem) return <Loader m="xl" aria-label="Getting ready" />
  const faults = problem instanceof Refused ? (problem.problem.errors ?? []) : []
  const empty = faults.some((fault) => fault.pointer === '/blocks')
  return (
    <ErrorNote
      title={
        empty
          ? 'This class has no blocks yet. Add one on Build.'
          : faults.length > 0
            ? 'Some entries need putting right before you can lead this class.'
            : `This class could not be opened for leading. ${troubleWords(problem)}`
      }
    >
      {!empty && faults.length > 0 && (
        <ul>
          {faults.map((fault) => (
            <li key={fault.pointer + fault.detail}>
              {fault.place}: {fault.detail} Should be: {fault.right}.
            </li>
          ))}
        </ul>
      )}
      <p>
        <Anchor component={Link} to="/">
          Go to Classes
        </Anchor>
      </p>
      {faults.length === 0 && <Button onClick={() => void navigate(0)}>Try again</Button>}
    </ErrorNote>
  )
}
