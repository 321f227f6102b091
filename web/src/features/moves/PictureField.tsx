import { Button, FileButton } from '@mantine/core'
import { useState } from 'react'
import css from './Moves.module.css'

const widest = 640
const most = 120_000

/** Drawn anew and smaller: what a camera writes beside a picture stays behind. */
async function small(file: File) {
  const image = await createImageBitmap(file)
  const by = Math.min(1, widest / Math.max(image.width, image.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(image.width * by)
  canvas.height = Math.round(image.height * by)
  const pen = canvas.getContext('2d')!
  // What is clear in a drawing is paper.
  pen.fillStyle = '#fff'
  pen.fillRect(0, 0, canvas.width, canvas.height)
  pen.drawImage(image, 0, 0, canvas.width, canvas.height)
  for (let quality = 0.85; quality > 0.2; quality -= 0.15) {
    const address = canvas.toDataURL('image/jpeg', quality)
    if (address.length < most) return address
  }
  throw new Error('too large')
}

interface Props {
  value?: string
  onChange: (value: string | undefined) => void
}

/** A photo or drawing of one’s own. */
export function PictureField({ value, onChange }: Props) {
  const [problem, setProblem] = useState('')
  const take = (file: File | null) => {
    if (!file) return
    setProblem('')
    small(file).then(onChange, () =>
      setProblem(`“${file.name}” is not a picture that can be shown. Choose a JPEG or PNG; nothing was changed.`),
    )
  }
  return (
    <fieldset className={css.asks} data-rows>
      <legend>Picture</legend>
      {value && <img className={css.photo} src={value} alt="Your picture of the move" />}
      <span>
        <FileButton accept="image/jpeg,image/png" onChange={take}>
          {(props) => (
            <Button variant="default" size="xs" {...props}>
              {value ? 'Another picture' : 'Add a photo or drawing'}
            </Button>
          )}
        </FileButton>{' '}
        {value && (
          <Button variant="default" size="xs" onClick={() => onChange(undefined)}>
            Remove the picture
          </Button>
        )}
      </span>
      {problem && <p role="alert">{problem}</p>}
    </fieldset>
  )
}
