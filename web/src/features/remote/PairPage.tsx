import { Button, TextInput } from '@mantine/core'
import { useMutation } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, api, troubleWords } from '../../api/client'
import { Page } from '../../ui/Page'

/** What a device is called until somebody calls it otherwise: what it is. */
const usualName = () => {
  const { userAgent } = navigator
  const known: [RegExp, string][] = [
    [/iPhone/, 'iPhone'],
    [/iPad/, 'iPad'],
    [/Android.*Mobile/, 'Android phone'],
    [/Android/, 'Android tablet'],
    [/Windows/, 'Windows screen'],
    [/Mac OS/, 'Mac screen'],
    [/TV|SmartTV/i, 'Television'],
    [/Linux/, 'Linux screen'],
  ]
  return known.find(([sign]) => sign.test(userAgent))?.[1] ?? 'Screen'
}

/** Where a wall or a phone is let in with the code on the instructor's screen. */
export function PairPage() {
  const [code, setCode] = useState(() => window.location.hash.replace('#', '').replace(/\D/g, '').slice(0, 6))
  const [name, setName] = useState(usualName)
  const pair = useMutation({
    mutationFn: () => answer(api.POST('/api/pair', { body: { code, name: name.trim() } })),
    onSuccess: ({ role }) => window.location.replace(role === 'wall' ? '/wall' : '/remote'),
  })
  return (
    <Page name="Pair this device" narrow>
      <h1>Pair this device</h1>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          pair.mutate()
        }}
      >
        <TextInput
          label="Six-digit code on the instructor’s screen"
          inputMode="numeric"
          autoComplete="one-time-code"
          value={code}
          onChange={(e) => setCode(e.currentTarget.value.replace(/\D/g, '').slice(0, 6))}
          size="lg"
          maw={320}
        />
        <TextInput
          label="Name of this device"
          value={name}
          maxLength={60}
          onChange={(e) => setName(e.currentTarget.value)}
          maw={320}
          mt="sm"
        />
        <Button
          type="submit"
          mt="md"
          size="md"
          disabled={code.length !== 6 || name.trim() === ''}
          loading={pair.isPending}
        >
          Pair
        </Button>
        {pair.error && <p role="alert">{troubleWords(pair.error)}</p>}
      </form>
    </Page>
  )
}
