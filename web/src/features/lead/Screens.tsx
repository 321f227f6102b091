import { useMutation, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Schemas } from '../../api/client'
import { answer, api, troubleWords } from '../../api/client'
import { client } from '../../save/client'
import { many } from '../../ui/words'
import { BeltSwitch } from './Hearts'
import css from './Stage.module.css'
import { Sheet } from './Sheet'

/** The wall and the phone: on this machine, or let in over the local network. */
export function Screens({ session, onClose }: { session: string; onClose: () => void }) {
  const [code, setCode] = useState<Schemas['PairingCode'] | null>(null)
  const devices = useQuery({
    queryKey: ['devices'],
    queryFn: () => answer(api.GET('/api/devices')),
    refetchInterval: 5000,
  })
  const ask = useMutation({
    mutationFn: (role: Schemas['DeviceRole']) => answer(api.POST('/api/devices/codes', { body: { role, session } })),
    onSuccess: (made) => {
      setCode(made)
      void client.invalidateQueries({ queryKey: ['devices'] })
    },
  })
  const away = useMutation({
    mutationFn: (id: string) => answer(api.DELETE('/api/devices/{id}', { params: { path: { id } } })),
    onSettled: () => client.invalidateQueries({ queryKey: ['devices'] }),
  })
  const open = devices.data?.address != null
  return (
    <Sheet title="Wall and phone" onClose={onClose}>
      <p>
        On this machine:{' '}
        <a href={`/wall/${session}`} target="_blank" rel="noreferrer">
          the wall
        </a>
        ,{' '}
        <a href={`/remote/${session}`} target="_blank" rel="noreferrer">
          the phone
        </a>
        , or <Link to={`/try/${session}`}>both side by side</Link>.
      </p>
      {!open && devices.data && (
        <p>
          Other devices cannot connect. Start Halterion with <code>--lan</code> to let them in.
        </p>
      )}
      {open && (
        <p>
          Let in{' '}
          <button type="button" className={css.way} onClick={() => ask.mutate('wall')}>
            a wall screen
          </button>{' '}
          <button type="button" className={css.way} onClick={() => ask.mutate('remote')}>
            Pair a phone
          </button>
        </p>
      )}
      <BeltSwitch session={session} />
      {(ask.error ?? away.error) && <p role="alert">{troubleWords(ask.error ?? away.error)}</p>}
      {(devices.data?.wrongTries ?? 0) > 0 && (
        <p role="status">
          {many(devices.data!.wrongTries, 'wrong code was', 'wrong codes were')} typed on other devices.
          {devices.data!.void && ' The last code no longer works. Get a new one above.'}
        </p>
      )}
      {code && !devices.data?.void && (
        <div className={css.code}>
          <svg viewBox={`0 0 ${code.size} ${code.size}`} role="img" aria-label={`QR code for ${code.address}`}>
            <rect width="100%" height="100%" fill="#fff" />
            <path d={code.picture} fill="#000" />
          </svg>
          <p>
            <b className={css.digits} data-testid="code">
              {code.code}
            </b>
            <br />
            works once for a {code.role === 'wall' ? 'wall screen' : 'phone'}, for five minutes, at
            <br />
            <span data-testid="address">{code.address.replace(/#.*/, '')}</span>
            <br />
            The browser will warn that it does not know this computer. That is expected: Halterion makes its own
            certificate.
          </p>
        </div>
      )}
      {(devices.data?.devices.length ?? 0) > 0 && (
        <ul className={css.devices}>
          {devices.data!.devices.map((d) => (
            <li key={d.id}>
              {d.name} ({d.role === 'wall' ? 'wall screen' : 'phone'}), last seen{' '}
              {new Date(d.lastSeen).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}{' '}
              <button type="button" className={css.way} onClick={() => away.mutate(d.id)}>
                Disconnect
              </button>
            </li>
          ))}
        </ul>
      )}
    </Sheet>
  )
}
