import { inkOn, palettesOf, surfacesOf, type PageStyle, type Palette } from '../style.ts'

const FACES: Readonly<Record<PageStyle['face'], string>> = {
  plain: 'system-ui,sans-serif',
  serif: 'Charter,"Iowan Old Style",Cambria,Georgia,serif',
  rounded: 'ui-rounded,"Nunito","Segoe UI",system-ui,sans-serif',
  narrow: '"Roboto Condensed","Arial Narrow",system-ui,sans-serif',
}
/** Sizes of text, and what each larger one is to the one below it. */
const SCALES: Readonly<Record<PageStyle['scale'], { readonly base: number; readonly ratio: number }>> = {
  small: { base: 16, ratio: 1.15 },
  medium: { base: 17, ratio: 1.25 },
  large: { base: 19, ratio: 1.333 },
}

/** Of every document. */
const BASE = `*{box-sizing:border-box}[hidden]{display:none!important}html{-webkit-text-size-adjust:100%}body{margin:0;min-height:100vh;background:var(--g) no-repeat center/cover;background-attachment:scroll;color:var(--i);font:var(--b)/1.5 var(--f);overflow-wrap:anywhere}main{max-width:34rem;margin:0 auto;padding:1.25rem 1rem 2rem;display:grid;gap:1.1rem;grid-template-columns:minmax(0,1fr)}h1,h2,p,ul,ol,dl,figure,dd{margin:0}h1{font-size:var(--h1);line-height:1.15}h2{font-size:var(--h2);line-height:1.25;margin-bottom:.4rem}a{color:var(--a)}a:focus-visible,button:focus-visible,summary:focus-visible,.row:focus-visible{outline:3px solid var(--i);outline-offset:2px}`

/** Of parts of pages. */
const PARTS = `.text>*+*,section>*+*{margin-top:.6rem}.text ul,.text ol{padding-inline-start:1.4rem}small{display:block;font-size:.85em;font-weight:400}img,video{display:block;max-width:100%;height:auto;border-radius:var(--r)}video{width:100%;background:#000}audio{display:block;width:100%}figcaption{margin-top:.35rem;font-size:.9em}.media figcaption{margin:0 0 .4rem;font-weight:700;font-size:1em}.media details{margin-top:.5rem}.link,.go{display:block;padding:.75rem 1rem;min-height:48px;border-radius:var(--r);font:inherit;font-weight:650;text-decoration:none}.link{border:1px solid var(--a);border-inline-start-width:5px}.go{width:100%;border:2px solid var(--a);background:var(--a);color:var(--o);text-align:center}.go.quiet{background:none;color:var(--a)}.row{list-style:none;padding:0 0 .4rem;display:flex;gap:.6rem;overflow-x:auto;scroll-snap-type:x proximity}.row li{flex:0 0 62%;scroll-snap-align:start}.row img{width:100%;aspect-ratio:4/3;object-fit:cover}details{border-bottom:1px solid var(--l);padding:.55rem 0}summary{cursor:pointer;font-weight:650;min-height:24px}details .text{margin-top:.5rem}hr{border:0;border-top:2px solid var(--l);margin:.3rem 0;width:100%}.prices div,.hours div{display:flex;justify-content:space-between;gap:1rem;padding:.4rem 0;border-bottom:1px solid var(--l)}.prices dd,.hours dd{text-align:end;white-space:nowrap;font-variant-numeric:tabular-nums}.hours dd{white-space:normal}.prices dt{font-weight:650}.now,.count,.when{font-weight:700}.count{font-size:var(--h2);text-align:center}address{font-style:normal}.card{text-align:center}.card .go+.go{margin-top:.6rem}.portrait img{width:9rem;height:9rem;object-fit:cover;border-radius:50%;margin:0 auto}.lines{list-style:none;padding:0;display:grid;gap:.35rem}.lines a{display:inline-block;min-height:24px}.ways{display:grid;gap:.5rem;text-align:center}.map svg{border:1px solid var(--l);background:color-mix(in srgb,var(--a) 14%,transparent);display:block;width:100%;height:auto;border-radius:var(--r)}.land{fill:color-mix(in srgb,var(--i) 16%,var(--c))}.pin{fill:var(--a);stroke:var(--c);stroke-width:2}nav{display:flex;flex-wrap:wrap;gap:.3rem 1rem;justify-content:flex-end;font-size:.9em}nav a,nav b{padding:.15rem 0;min-height:24px}.only{position:absolute;width:1px;height:1px;overflow:hidden;clip-path:inset(50%)}@media print{body{background:#fff!important;color:#000}main{max-width:none;background:none!important}.go,nav,audio,video,.ways{display:none}details>*{display:block!important}.link{border:0;padding:0}.link::after{content:" " attr(href);font-weight:400}}`

/** Of forms on pages. */
const FORMS = `form{display:grid;gap:1.25rem}fieldset{border:0;padding:0;margin:0;min-width:0;display:grid;gap:.4rem}legend,.q>label{font-weight:650;padding:0;display:block}legend{margin-bottom:.4rem}.q{display:grid;gap:.4rem}.must{display:inline;font-weight:400}.form section{display:grid;gap:1.25rem;border-top:2px solid var(--l);padding-top:1rem}.form input:not([type=radio],[type=checkbox],[type=hidden]),select,textarea{font:inherit;color:inherit;background:none;border:1px solid var(--i);border-radius:var(--r);padding:.65rem;width:100%;min-height:48px}select option{color:#000;background:#fff}.tick{display:flex;gap:.7rem;align-items:center;min-height:44px}.tick input{width:1.4rem;height:1.4rem;flex:none;margin:0;accent-color:var(--a)}.tick select{width:auto;min-width:4.5rem}.steps{display:flex;flex-wrap:wrap;gap:.2rem .5rem}.steps .tick{flex-direction:column;gap:.2rem;min-width:2.2rem;justify-content:center}.ends{display:flex;justify-content:space-between;gap:1rem}.unit,.other{display:flex;gap:.6rem;align-items:center}.other .tick{flex:none}.fault{font-weight:700;border-inline-start:4px solid var(--i);padding-inline-start:.6rem}.form input:focus-visible,select:focus-visible,textarea:focus-visible{outline:3px solid var(--i);outline-offset:2px}progress{width:100%;accent-color:var(--a)}button.go{cursor:pointer}`

function groundOf({ ground }: Palette, pictureHref: (key: string) => string): string {
  if (ground.kind === 'solid') return ground.colour
  if (ground.kind === 'gradient')
    return `linear-gradient(${String(ground.angle)}deg,${ground.from},${ground.upTo})`
  const href = ground.file === '' ? '' : pictureHref(ground.file)
  return href === '' ? ground.sheet : `url("${encodeURI(href)}")`
}

function variables(palette: Palette, pictureHref: (key: string) => string): string {
  const { ground, ink, accent } = palette
  const solid = surfacesOf(ground)[0] ?? '#FFFFFF'
  const sheet = ground.kind === 'picture' ? `;--s:${ground.sheet}` : ''
  return `--g:${groundOf(palette, pictureHref)};--c:${solid};--i:${ink};--a:${accent};--o:${inkOn(accent)};--l:color-mix(in srgb,${ink} 30%,transparent)${sheet}`
}

/** Of what the front door itself says, and of forms. */
const OWN =
  '.own h1{font-size:calc((var(--h1) + var(--h2))/2)}.own{align-content:center;min-height:100vh}.own p{white-space:pre-line}form{display:grid;gap:.75rem}input[type=password]{font:inherit;padding:.65rem;border:1px solid var(--i);border-radius:var(--r);width:100%;background:none;color:inherit}form button,#tell{font:inherit;font-weight:650;padding:.75rem 1rem;min-height:48px;border:2px solid var(--a);border-radius:var(--r);background:var(--a);color:var(--o)}form button.quiet{background:none;color:var(--a)}label.tick{display:flex;gap:.6rem;align-items:start}label.tick input{width:1.4rem;height:1.4rem;margin:0}.fault{font-weight:700;border-inline-start:4px solid var(--i);padding-inline-start:.6rem}'

const SHEET = 'main{background:var(--s,transparent)}'
const ON_PICTURE = 'body{background-attachment:fixed}main{min-height:100vh}'

/**
 * The style sheet of a page.
 *
 * @param pictureHref where a picture of the ground is, by its key; empty where it is gone
 */
export const pageCss = (
  style: PageStyle,
  pictureHref: (key: string) => string,
  { forced, hasForm = false }: { forced?: 'light' | 'dark' | undefined; hasForm?: boolean } = {},
): string => sheetOf(style, hasForm ? PARTS + FORMS : PARTS, pictureHref, forced)

/** The style sheet of what the front door itself says. */
export const ownCss = (style: PageStyle, pictureHref: (key: string) => string): string =>
  sheetOf(style, OWN, pictureHref)

function sheetOf(
  style: PageStyle,
  more: string,
  pictureHref: (key: string) => string,
  forced?: 'light' | 'dark',
): string {
  const { base, ratio } = SCALES[style.scale]
  const all = palettesOf(style)
  const used = forced ? all.filter(([name]) => all.length === 1 || name === forced) : all
  const [first, second] = used
  const schemes = used.map(([name]) => name).join(' ')
  const common = `--b:${String(base)}px;--h1:${(base * ratio ** 3).toFixed(1)}px;--h2:${(base * ratio).toFixed(1)}px;--f:${FACES[style.face]};--r:${String(style.corner)}px`
  const dark = second
    ? `@media(prefers-color-scheme:${second[0]}){:root{${variables(second[1], pictureHref)}}}`
    : ''
  const hasPicture = used.some(([, { ground }]) => ground.kind === 'picture')
  return `:root{color-scheme:${schemes};${common};${first ? variables(first[1], pictureHref) : ''}}${dark}${BASE}${more}${hasPicture ? SHEET + ON_PICTURE : ''}`
}
