import { SITE_LIST } from './siteScript.ts'

interface Addresses {
  readonly script: string
  readonly image: string
  readonly call: string
}

/** What a site puts where, in ready-made pieces; `key` is that of a goal. */
export function snippets({ script, image, call }: Addresses, key: string) {
  return {
    head: `<script async src="${script}"></script>`,
    container: `<script>
(function (d, s) {
  s = d.createElement('script');
  s.src = '${script}';
  d.head.appendChild(s);
})(document);
</script>`,
    push: `<script>
window.${SITE_LIST} = window.${SITE_LIST} || [];
${SITE_LIST}.push({ goal: '${key}', value: 39, currency: 'EUR', order: '4711' });
</script>`,
    click: `<button data-goal="${key}">…</button>`,
    image: `<img src="${image}?ref=REFERENCE&amp;goal=${key}&amp;value=39&amp;currency=EUR&amp;order=4711" width="1" height="1" alt="">`,
    call: `POST ${call}
Content-Type: application/jwt

a JSON Web Token (RFC 7519), signed with HS256 and the secret, whose claims are
{ "iat": 1790000000, "ref": "REFERENCE", "goal": "${key}",
  "value": 39, "currency": "EUR", "order": "4711" }`,
  }
}
export type Snippets = ReturnType<typeof snippets>
