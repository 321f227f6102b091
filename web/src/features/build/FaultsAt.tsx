import { useClassEditor } from '../editor/context'
import css from './Build.module.css'

/** The faults of a place and of what lies in it. `shallow`: but not of its stations, which show their own. */
export function FaultsAt({ pointer, shallow = false }: { pointer: string; shallow?: boolean }) {
  const { faults } = useClassEditor()
  const here = faults.filter(
    (fault) =>
      (fault.pointer === pointer || fault.pointer.startsWith(`${pointer}/`)) &&
      !(shallow && fault.pointer.startsWith(`${pointer}/stations/`)),
  )
  if (here.length === 0) return null
  return (
    <ul className={css.faults} role="alert">
      {here.map((fault, i) => (
        <li key={i}>
          {fault.detail} Should be: {fault.right}.
        </li>
      ))}
    </ul>
  )
}
