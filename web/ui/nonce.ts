/** The page's own nonce: the content security policy lets only styles that carry it in. */
export const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce
