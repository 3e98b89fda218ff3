/** The page's own nonce: the content security policy lets only styles that carry it in. There is none where there is no page. */
export const nonce = (globalThis.document as Document | undefined)?.querySelector<HTMLMetaElement>(
  'meta[property="csp-nonce"]',
)?.nonce
