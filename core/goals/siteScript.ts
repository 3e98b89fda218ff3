import { REFERENCE_PARAMETER } from './hits.ts'

/** The whole script is no larger, so that no page waits for it. */
export const SCRIPT_BYTES_MAX = 2048

/** The list a site puts into what it wants counted. */
export const SITE_LIST = 'flimboGoals'

/**
 * The script of a site: it takes the scan's reference out of the address into the storage of this tab, tells of pages,
 * of how long they are looked at, and of goals. Without a reference it does nothing at all. It sets no cookie, and what
 * it stores ends with the tab.
 *
 * @param address where hits are sent
 * @param honoursSignals whether visitors who ask not to be tracked (Do Not Track, Global Privacy Control) are left out
 */
export function siteScript(address: string, honoursSignals: boolean): string {
  const heeds = honoursSignals ? 'if(n.doNotTrack=="1"||n.globalPrivacyControl)return;' : ''
  return `(function(w,d,n,l){var U=${JSON.stringify(address)},K=${JSON.stringify(REFERENCE_PARAMETER)},q=w.${SITE_LIST},r,v,p,b,t,c=[];
w.${SITE_LIST}={push:function(){}};${heeds}
try{r=new URLSearchParams(l.search).get(K);if(r){sessionStorage[K]=r;history.replaceState(history.state,"",l.pathname+l.search.replace(new RegExp("([?&])"+K+"=[^&]*&?"),"$1").replace(/[?&]$/,"")+l.hash)}else r=sessionStorage[K]}catch(e){}
if(!r)return;
function id(){return Math.random().toString(36).slice(2,12)}
function send(o){o.ref=r;return fetch(U,{method:"POST",body:JSON.stringify(o),keepalive:true,credentials:"omit"})}
function goal(o){var x={event:id()},k;for(k in o)x[k]=o[k];send(x).catch(function(){})}
function stay(){if(b)t+=Date.now()-b;b=0;send({view:v,address:p,seconds:t/1e3}).catch(function(){})}
function look(){v=id();p=l.href;t=0;b=d.hidden?0:Date.now();send({view:v,address:p}).then(function(a){return a.json()}).then(function(a){c=a.clicks||[]}).catch(function(){})}
function moved(){if(l.href.split("#")[0]!=p.split("#")[0]){stay();look()}}
d.addEventListener("click",function(e){var x=e.target,i;if(!x.closest)return;if(i=x.closest("[data-goal]"))goal({goal:i.getAttribute("data-goal")});c.forEach(function(k){try{x.closest(k[1])&&goal({goal:k[0]})}catch(e){}})},true);
d.addEventListener("visibilitychange",function(){if(d.hidden)stay();else b=Date.now()});
w.addEventListener("popstate",moved);
["pushState","replaceState"].forEach(function(f){var o=history[f];history[f]=function(){o.apply(history,arguments);moved()}});
look();(q&&q.forEach?q:[]).forEach(goal);w.${SITE_LIST}={push:goal}})(window,document,navigator,location)
`
}
