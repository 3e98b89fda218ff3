export { RichEditor } from './RichEditor.tsx'
export { fromDocument, toDocument } from './richDocument.ts'
export type { EditorNode } from './richDocument.ts'
