import type { Words } from '../words.ts'

export const it: Words = {
  pages: {
    home: {
      title: 'Link brevi',
      text: 'A questo indirizzo ci sono link brevi. Scansiona un codice, o digita un link breve per intero, per arrivare alla sua pagina.',
    },
    unknown: {
      title: 'Questo link breve non esiste',
      text: 'A questo indirizzo non c’è nulla. Controlla lettere e cifre, o chiedi a chi te l’ha dato.',
    },
    paused: {
      title: 'In pausa',
      text: 'Questo codice al momento è in pausa. Riprova più tardi, o chiedi a chi l’ha esposto.',
    },
    deleted: {
      title: 'Non più in uso',
      text: 'Questo codice è stato ritirato e non porta più da nessuna parte. Chiedi a chi l’ha esposto.',
    },
    early: {
      title: 'Non ancora',
      text: 'Ciò a cui porta questo codice non è ancora iniziato. Torna un po’ più tardi.',
    },
    over: {
      title: 'È finito',
      text: 'Ciò a cui portava questo codice è finito. Chiedi a chi l’ha esposto che cosa c’è adesso.',
    },
    full: {
      title: 'Tutto esaurito',
      text: 'Ce n’era un numero fisso, e sono finiti tutti. Chiedi a chi ha esposto questo codice.',
    },
    'full-today': { title: 'Esaurito per oggi', text: 'Per oggi è tutto esaurito. Riprova domani.' },
    busy: {
      title: 'Un momento, per favore',
      text: 'In questo momento il link breve non può essere seguito. Riprova tra un minuto.',
    },
    method: {
      title: 'Solo in lettura',
      text: 'Un link breve si può solo aprire. Apri questo indirizzo in un browser.',
    },
    malformed: {
      title: 'Impossibile leggere',
      text: 'L’indirizzo o la richiesta è danneggiata. Scansiona di nuovo il codice.',
    },
  },
  password: {
    title: 'Password, per favore',
    text: 'Chi ha esposto questo codice lo ha protetto con una password.',
    label: 'Password',
    goOn: 'Continua',
    wrong: 'La password non è giusta. Riprova.',
    wait: 'Ci sono state troppe password errate. Aspetta {time}, poi riprova.',
  },
  location: {
    title: 'Dove sei?',
    keep: 'Potete anche conservare la mia posizione, arrotondata a circa un chilometro.',
    tell: 'Di’ dove sono',
    without: 'Continua senza',
  },
  onward: {
    onTo: 'Verso {host}',
    privacy: 'Come trattiamo i tuoi dati',
    yes: 'Sì, continua',
    no: 'No, continua senza',
  },
  parts: {
    openNow: 'Aperto ora',
    closedNow: 'Chiuso ora',
    until: 'fino alle {time}',
    opens: 'apre {time}',
    closed: 'Chiuso',
    saveContact: 'Salva contatto',
    addToWallet: 'Aggiungi al portafoglio',
    share: 'Condividi',
    addToCalendar: 'Aggiungi al calendario',
    openInMaps: 'Apri nelle mappe',
    mapOnWeb: 'Mappa sul web',
    transcript: 'Leggi il testo',
    languages: 'Lingue',
  },
}
