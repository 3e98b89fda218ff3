import type { Words } from '../words.ts'

export const ro: Words = {
  pages: {
    home: {
      title: 'Linkuri scurte',
      text: 'La această adresă sunt linkuri scurte. Scanați un cod sau scrieți un link scurt până la capăt pentru a ajunge la pagina lui.',
    },
    unknown: {
      title: 'Acest link scurt nu există',
      text: 'La această adresă nu este nimic. Verificați literele și cifrele sau întrebați persoana de la care o aveți.',
    },
    paused: {
      title: 'În pauză',
      text: 'Acest cod este în pauză în acest moment. Încercați mai târziu sau întrebați persoana care l-a pus.',
    },
    deleted: {
      title: 'Nu mai este folosit',
      text: 'Acest cod a fost retras și nu mai duce nicăieri. Întrebați persoana care l-a pus.',
    },
    early: {
      title: 'Încă nu',
      text: 'Lucrul la care duce acest cod nu a început încă. Reveniți puțin mai târziu.',
    },
    over: {
      title: 'S-a terminat',
      text: 'Lucrul la care ducea acest cod s-a terminat. Întrebați persoana care l-a pus ce este acum.',
    },
    full: {
      title: 'S-au dat toate',
      text: 'A existat un număr fix și s-au dat toate. Întrebați persoana care a pus acest cod.',
    },
    'full-today': { title: 'Pentru azi s-au dat toate', text: 'Pentru azi s-au dat toate. Încercați mâine.' },
    busy: {
      title: 'Un moment, vă rugăm',
      text: 'Acest link scurt nu poate fi urmat acum. Încercați peste un minut.',
    },
    method: {
      title: 'Doar pentru citire',
      text: 'Linkurile scurte pot fi doar deschise. Deschideți această adresă într-un browser.',
    },
    malformed: {
      title: 'Nu s-a putut citi',
      text: 'Adresa sau cererea este deteriorată. Scanați din nou codul.',
    },
  },
  password: {
    title: 'Parola, vă rugăm',
    text: 'Persoana care a pus acest cod l-a protejat cu o parolă.',
    label: 'Parolă',
    goOn: 'Continuă',
    wrong: 'Parola nu este corectă. Încercați din nou.',
    wait: 'Au fost prea multe parole greșite. Așteptați {time}, apoi încercați din nou.',
  },
  location: {
    title: 'Unde sunteți?',
    keep: 'Puteți păstra și locul în care sunt, rotunjit la aproximativ un kilometru.',
    tell: 'Spune unde sunt',
    without: 'Continuă fără',
  },
  onward: {
    onTo: 'Spre {host}',
    privacy: 'Cum folosim datele dumneavoastră',
    yes: 'Da, continuă',
    no: 'Nu, continuă fără',
  },
  parts: {
    openNow: 'Deschis acum',
    closedNow: 'Închis acum',
    until: 'până la {time}',
    opens: 'se deschide {time}',
    closed: 'Închis',
    saveContact: 'Salvează contactul',
    addToWallet: 'Adaugă în portofel',
    share: 'Distribuie',
    addToCalendar: 'Adaugă în calendar',
    openInMaps: 'Deschide în hărți',
    mapOnWeb: 'Hartă pe web',
    transcript: 'Citește ca text',
    languages: 'Limbi',
  },
}
