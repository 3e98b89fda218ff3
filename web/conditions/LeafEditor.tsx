import type { Leaf, LeafKind } from '@flimbo/core/conditions'
import type { ComponentType } from 'react'
import { CodeEditor, QueryEditor } from './codeEditors.tsx'
import { BrowserEditor, DeviceEditor, LanguageEditor, SystemEditor } from './deviceEditors.tsx'
import type { Editing } from './editing.ts'
import { HoursEditor, VisitEditor, WindowEditor } from './whenEditors.tsx'
import { CityEditor, CountryEditor, DistanceEditor, NearEditor, RegionEditor } from './whereEditors.tsx'

const EDITORS: { readonly [Kind in LeafKind]: ComponentType<Editing<Kind>> } = {
  country: CountryEditor,
  region: RegionEditor,
  city: CityEditor,
  near: NearEditor,
  distance: DistanceEditor,
  device: DeviceEditor,
  system: SystemEditor,
  browser: BrowserEditor,
  language: LanguageEditor,
  window: WindowEditor,
  hours: HoursEditor,
  visit: VisitEditor,
  code: CodeEditor,
  query: QueryEditor,
}

/** The fields of one condition. */
export function LeafEditor({ leaf, change }: { leaf: Leaf; change: (leaf: Leaf) => void }) {
  // The table has the editor of just this kind of condition; that is more than the type of a look-up says.
  const Fields = EDITORS[leaf.kind] as ComponentType<{ leaf: Leaf; change: (leaf: Leaf) => void }>
  return <Fields leaf={leaf} change={change} />
}
