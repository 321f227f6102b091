import { Anchor, Button, Loader } from '@mantine/core'
import { useEffect, useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { Refused } from '../../api/client'
import { ErrorNote } from '../../ui/ErrorNote'
import { useClassEditor } from '../editor/context'
import { Stage } from './Stage'
import { useLead } from './useLead'

/** Leads the class that is open. What was typed last is saved first, so that it is what is led. */
export function LeadPage() {
  const { id, flush, plan } = useClassEditor()
  const [ready, setReady] = useState(false)
  useEffect(() => {
    // Saved or not, a class that was opened before can be led: the browser has it.
    void flush().finally(() => setReady(true))
  }, [flush])
  if (!ready) return <Loader m="xl" aria-label="Getting ready" />
  return <OpenLead key={id} classId={id} empty={plan.blocks.length === 0} />
}

function OpenLead({ classId, empty }: { classId: string; empty: boolean }) {
  const { lead, problem } = useLead(classId)
  const navigate = useNavigate()
  if (problem) {
    const faults = problem instanceof Refused ? (problem.problem.errors ?? []) : []
    return (
      <ErrorNote
        title={
          empty
            ? 'This class has no blocks yet, so there is nothing to lead.'
            : problem instanceof Refused
              ? 'This class cannot be led as it is.'
              : 'The class cannot be opened: the server does not answer.'
        }
      >
        {!empty && faults.length > 0 && (
          <ul>
            {faults.map((fault, i) => (
              <li key={i}>
                {fault.pointer}: {fault.detail} Right would be: {fault.right}.
              </li>
            ))}
          </ul>
        )}
        <p>
          <Anchor component={Link} to="../build" relative="path">
            Back to building
          </Anchor>
        </p>
        {!(problem instanceof Refused) && <Button onClick={() => void navigate(0)}>Try again</Button>}
      </ErrorNote>
    )
  }
  return lead ? <Stage lead={lead} /> : <Loader m="xl" aria-label="Getting ready" />
}
