/** The policy of files that are opened by themselves: whatever stands in one, nothing of it runs or reaches out. */
export const INERT_POLICY = "default-src 'none'; style-src 'unsafe-inline'; sandbox"
