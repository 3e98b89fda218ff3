/**
 * What a form does beyond what it does without script: it asks the front door which questions come next and what is wrong
 * with an answer (the rule itself stands there alone), keeps what is typed on the phone until it is sent, and sends it
 * again by itself where a line breaks. A form that was taken is sent once more as a plain form: the front door knows it,
 * stores nothing twice, and leads on.
 */
export const FORM_SCRIPT = `const forms=()=>{for(const f of document.querySelectorAll('form[data-form]')){
const at='form '+location.pathname.replace(/\\/~.*/,'')+' '+f.dataset.form,store=v=>{try{v===undefined?localStorage.removeItem(at):localStorage.setItem(at,v)}catch{}},kept=()=>{try{return localStorage.getItem(at)}catch{return null}};
const own=()=>[...f.elements].filter(e=>e.name.startsWith('q.')&&e.type!=='hidden'&&e.type!=='file'),note=f.querySelector('[data-draft]'),status=f.querySelector('[data-status]'),say=t=>{status.textContent=t;status.hidden=!t};
const data=act=>{const d=new FormData(f);d.set('act',act);return d};
const draft=kept();if(draft&&!f.querySelector('.fault')){const d=new URLSearchParams(draft);for(const e of own()){if(e.type==='radio'||e.type==='checkbox'){if(d.has(e.name))e.checked=d.getAll(e.name).includes(e.value)}else if(d.has(e.name)&&!e.value)e.value=d.get(e.name)}}
let asks=0,last='';const look=async()=>{const n=++asks,d=data('look');for(const [k,v] of [...d])if(v instanceof File)d.delete(k);let a;try{const r=await fetch(f.action,{method:'POST',body:new URLSearchParams(d)});a=await r.json()}catch{return}if(n!==asks)return;
for(const e of f.querySelectorAll('[data-q],[data-section]'))e.hidden=!a.shown.includes(e.dataset.q??e.dataset.section);
f.elements.asked.value=[...f.querySelectorAll('[data-q]')].map(e=>e.dataset.q).filter(q=>a.shown.includes(q)).join(',');
const q=last&&f.querySelector('[data-q="'+last+'"]');if(q){q.querySelector('.fault')?.remove();const t=a.faults[last],i=q.querySelector('input,select,textarea');if(t&&i){const p=document.createElement('p');p.className='fault';p.id=i.id+'-f';p.textContent=t;i.setAttribute('aria-invalid','true');i.setAttribute('aria-describedby',p.id);(i.closest('.tick,.unit')??i).before(p)}else if(i)i.removeAttribute('aria-invalid')}};
let soon;f.addEventListener('change',e=>{last=e.target.closest('[data-q]')?.dataset.q??'';clearTimeout(soon);soon=setTimeout(look,150)});
f.addEventListener('input',()=>{const d=new URLSearchParams();for(const e of own())if((e.type!=='radio'&&e.type!=='checkbox'||e.checked)&&e.value)d.append(e.name,e.value);store(d+'');note.hidden=false});
let busy=false;const send=async act=>{if(busy)return;busy=true;say(status.dataset.status);let r;try{r=await fetch(f.action,{method:'POST',body:f.enctype==='multipart/form-data'?data(act):new URLSearchParams(data(act)),redirect:'manual'})}catch{}
if(r?.type==='opaqueredirect'){store();const b=document.createElement('input');b.type='hidden';b.name='act';b.value=act;f.append(b);f.submit();return}
busy=false;if(!r||r.status>=500){say(status.dataset.offline);const again=()=>{removeEventListener('online',again);clearTimeout(timer);send(act)},timer=setTimeout(again,8000);addEventListener('online',again);return}
const m=new DOMParser().parseFromString(await r.text(),'text/html').querySelector('main');if(!m){f.submit();return}document.querySelector('main').replaceWith(m);forms();const t=m.querySelector('[role=alert],[role=status]:not([hidden])');t?(t.focus(),t.scrollIntoView()):m.querySelector('form')?.scrollIntoView()};
f.addEventListener('submit',e=>{e.preventDefault();send(e.submitter?.value??'send')});if(draft)look()}};forms()`
