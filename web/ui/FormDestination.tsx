import { readDestination } from '@flimbo/core/routing'
import { useWatch, type FieldValues } from 'react-hook-form'
import { FormText, type FormTextProps } from './fields.tsx'

/** What is made of an address that was typed without its beginning; null where it is taken as it stands. */
export function completedAddress(typed: string): string | null {
  const reading = readDestination(typed)
  return reading.ok && reading.assumed ? `Taken as ${reading.text}` : null
}

/** A destination of a form; one without `https://` is taken with it, and the field says so while it is typed. */
export function FormDestination<Values extends FieldValues>({ hint, ...props }: FormTextProps<Values>) {
  const typed = useWatch({ control: props.control, name: props.name }) as unknown
  const shown = (typeof typed === 'string' ? completedAddress(typed) : null) ?? hint
  return (
    <FormText
      placeholder="https://"
      {...props}
      {...(shown === undefined ? {} : { hint: shown })}
      name={props.name}
    />
  )
}
