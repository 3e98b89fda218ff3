/** Why a line is refused, each reason with the column it is said of; none for the line as a whole. */
export function faultList() {
  const faults: { readonly column: string | null; readonly sentence: string }[] = []
  return {
    add(column: string | null, sentence: string): void {
      faults.push({ column, sentence })
    },
    isAt: (column: string): boolean => faults.some((fault) => fault.column === column),
    any: (): boolean => faults.length > 0,
    /** The reasons as they are shown, each beginning with its column. */
    sentences: (): string[] =>
      faults.map(({ column, sentence }) => (column === null ? sentence : `${column}: ${sentence}`)),
  }
}
export type FaultList = ReturnType<typeof faultList>
