import { NumberInput } from '@mantine/core'

interface Props {
  label: string
  value: number | undefined
  min?: number
  max: number
  step?: number
  suffix?: string
  placeholder?: string
  width?: number
  /** Undefined where the field was emptied. */
  onChange: (value: number | undefined) => void
}

/** A whole number with its unit. */
export function SecondsInput({
  label,
  value,
  min = 0,
  max,
  step = 5,
  suffix = ' s',
  placeholder,
  width = 104,
  onChange,
}: Props) {
  return (
    <NumberInput
      label={label}
      size="xs"
      w={width}
      min={min}
      max={max}
      step={step}
      allowDecimal={false}
      allowNegative={false}
      suffix={suffix}
      placeholder={placeholder}
      value={value ?? ''}
      onChange={(next) => {
        if (next === '') onChange(undefined)
        else if (typeof next === 'number') onChange(next)
      }}
      onFocus={(event) => event.currentTarget.select()}
    />
  )
}
