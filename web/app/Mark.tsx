/** The mark: one line that parts, on petrol. */
export function Mark({ size = 24 }: { size?: number }) {
  return <img src="/mark.svg" width={size} height={size} alt="" />
}
