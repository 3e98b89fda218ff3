import { FORM_SCRIPT } from './formScript.ts'

/** A text as a script within markup reads it: nothing in it can end the script. */
const inScript = (value: string) => JSON.stringify(value).replace(/</g, '\\u003c')

/** Seconds after which it is told that a page is still looked at; only while it is seen. */
export const STAY_SECONDS = [5, 15, 30, 60, 120, 300, 600, 1800] as const
/** Parts of a recording or film, in per cent, after which it is told that so much was played; 0 as it begins. */
export const PLAYED_MARKS = [0, 25, 50, 75, 100] as const

/** Of a recording, the last moments are often cut off by players themselves. */
const NEARLY_ALL = 0.98

/** Tells what happens: with `sendBeacon`, which waits for nobody and keeps nobody waiting. What was played twice counts once. */
const telling = (
  href: string,
) => `const u=${inScript(href)},tell=(...l)=>navigator.sendBeacon(u,l.join('\\n'));
document.addEventListener('click',e=>{const a=e.target.closest('[data-link]');if(a)tell('link '+a.dataset.link)});
for(const m of document.querySelectorAll('[data-part]')){const s=new Set,mark=p=>{if(!s.has(p)){s.add(p);tell('played '+m.dataset.part+' '+p)}},look=()=>{let n=0;for(let i=0;i<m.played.length;i++)n+=m.played.end(i)-m.played.start(i);const f=n/m.duration;for(const p of [25,50,75])if(f>=p/100)mark(p);if(f>=${String(NEARLY_ALL)})mark(100)};m.addEventListener('play',()=>mark(0));for(const w of ['timeupdate','pause','ended'])m.addEventListener(w,look)}
let since=document.hidden?0:Date.now(),sum=0,sent=0;const stay=()=>{if(since)sum+=Date.now()-since;since=0;const l=${JSON.stringify(STAY_SECONDS)}.filter(x=>x*1000<=sum&&x>sent);if(l.length){sent=l[l.length-1];tell(...l.map(x=>'stayed - '+x))}};
document.addEventListener('visibilitychange',()=>{if(document.hidden)stay();else since=Date.now()});addEventListener('pagehide',stay);
for(const b of document.querySelectorAll('[data-share]'))if(navigator.share){b.hidden=false;b.addEventListener('click',()=>navigator.share({title:b.dataset.share,url:u.replace(/\\/~.*/,'')}).then(()=>tell('shared '+b.dataset.of),()=>0))}`

/** Counts down while the page is looked at; without script what was left when it came stays there. */
const COUNTING = `for(const c of document.querySelectorAll('time[data-over]')){const g=document.documentElement.lang,n=()=>{let d=Date.parse(c.dateTime)-Date.now();if(d<=0){c.parentNode.textContent=c.dataset.over;return clearInterval(i)}const q=[];for(const [w,z] of [['day',864e5],['hour',36e5],['minute',6e4]]){const k=Math.floor(d/z);d%=z;q.push([w,k])}let f=q.findIndex(x=>x[1]>0);const s=f<0?q.slice(-1):q.slice(f,f+2).filter((x,j)=>x[1]>0||j===0);c.textContent=s.map(([w,k])=>new Intl.NumberFormat(g,{style:'unit',unit:w,unitDisplay:'long'}).format(k)).join(' ')},i=setInterval(n,15000)}`

/** The script of a page; it has none where nothing on it needs one. */
export function pageScript(
  tellHref: string | null,
  { hasCountdown, hasForm }: { readonly hasCountdown: boolean; readonly hasForm: boolean },
): string {
  const isLive = tellHref !== null
  return [isLive ? telling(tellHref) : '', hasCountdown ? COUNTING : '', isLive && hasForm ? FORM_SCRIPT : '']
    .filter(Boolean)
    .join('\n')
}
