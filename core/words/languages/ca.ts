import type { Words } from '../words.ts'

export const ca: Words = {
  pages: {
    home: {
      title: 'Enllaços curts',
      text: 'En aquesta adreça hi ha enllaços curts. Escaneja un codi, o escriu un enllaç curt sencer, per arribar a la seva pàgina.',
    },
    unknown: {
      title: 'Aquest enllaç curt no existeix',
      text: 'No hi ha res en aquesta adreça. Comprova les lletres i els números, o pregunta a qui te l’ha donada.',
    },
    paused: {
      title: 'En pausa',
      text: 'Aquest codi està en pausa ara mateix. Torna-ho a provar més tard, o pregunta a qui l’ha posat.',
    },
    deleted: {
      title: 'Ja no es fa servir',
      text: 'Aquest codi s’ha retirat i ja no porta enlloc. Pregunta a qui l’ha posat.',
    },
    early: {
      title: 'Encara no',
      text: 'Allò a què porta aquest codi encara no ha començat. Torna una mica més tard.',
    },
    over: {
      title: 'S’ha acabat',
      text: 'Allò a què portava aquest codi s’ha acabat. Pregunta a qui l’ha posat què hi ha ara.',
    },
    full: {
      title: 'No en queda cap',
      text: 'N’hi havia un nombre fix i ja no en queda cap. Pregunta a qui ha posat aquest codi.',
    },
    'full-today': {
      title: 'Per avui no en queda cap',
      text: 'Per avui no en queda cap. Torna-ho a provar demà.',
    },
    busy: {
      title: 'Un moment, si us plau',
      text: 'Ara mateix no es pot seguir aquest enllaç curt. Torna-ho a provar d’aquí a un minut.',
    },
    method: {
      title: 'Només lectura',
      text: 'Un enllaç curt només es pot obrir. Obre aquesta adreça en un navegador.',
    },
    malformed: {
      title: 'No s’ha pogut llegir',
      text: 'L’adreça o la petició està malmesa. Torna a escanejar el codi.',
    },
  },
  password: {
    title: 'Contrasenya, si us plau',
    text: 'Qui ha posat aquest codi l’ha protegit amb una contrasenya.',
    label: 'Contrasenya',
    goOn: 'Continua',
    wrong: 'La contrasenya no és correcta. Torna-ho a provar.',
    wait: 'Hi ha hagut massa contrasenyes errònies. Espera {time} i torna-ho a provar.',
  },
  location: {
    title: 'On ets?',
    keep: 'També podeu desar on soc, arrodonit a un quilòmetre aproximadament.',
    tell: 'Digues on soc',
    without: 'Continua sense',
  },
  onward: {
    onTo: 'Cap a {host}',
    privacy: 'Com tractem les teves dades',
    yes: 'Sí, continua',
    no: 'No, continua sense',
  },
  parts: {
    openNow: 'Obert ara',
    closedNow: 'Tancat ara',
    until: 'fins a {time}',
    opens: 'obre {time}',
    closed: 'Tancat',
    saveContact: 'Desa el contacte',
    addToWallet: 'Afegeix a la cartera',
    share: 'Comparteix',
    addToCalendar: 'Afegeix al calendari',
    openInMaps: 'Obre als mapes',
    mapOnWeb: 'Mapa al web',
    transcript: 'Text per llegir',
    languages: 'Idiomes',
  },
}
