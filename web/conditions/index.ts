export { ConditionEditor } from './ConditionEditor.tsx'
export { NumberField, OnePlace, Several, ZoneField } from './fields.tsx'
export { asGroup, BROWSERS, LANGUAGES, SYSTEMS } from './kinds.ts'
export { Pick } from './Pick.tsx'
