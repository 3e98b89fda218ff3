import type { Words } from '../words.ts'

export const de: Words = {
  pages: {
    home: {
      title: 'Kurzlinks',
      text: 'Unter dieser Adresse stehen Kurzlinks. Scannen Sie einen Code oder tippen Sie einen Kurzlink bis zum Ende, um auf seine Seite zu gelangen.',
    },
    unknown: {
      title: 'Diesen Kurzlink gibt es nicht',
      text: 'Unter dieser Adresse ist nichts hinterlegt. Bitte prüfen Sie Buchstaben und Ziffern oder fragen Sie, von wem Sie sie haben.',
    },
    paused: {
      title: 'Macht gerade Pause',
      text: 'Dieser Code ist im Moment angehalten. Bitte versuchen Sie es später noch einmal oder fragen Sie, wer ihn angebracht hat.',
    },
    deleted: {
      title: 'Nicht mehr in Gebrauch',
      text: 'Dieser Code wurde zurückgezogen und führt nirgendwo mehr hin. Bitte fragen Sie, wer ihn angebracht hat.',
    },
    early: {
      title: 'Noch nicht',
      text: 'Was hinter diesem Code steht, hat noch nicht begonnen. Bitte kommen Sie etwas später wieder.',
    },
    over: {
      title: 'Das ist vorbei',
      text: 'Was hinter diesem Code stand, ist zu Ende. Bitte fragen Sie, wer ihn angebracht hat, was es jetzt gibt.',
    },
    full: {
      title: 'Alles vergeben',
      text: 'Hiervon gab es eine feste Anzahl, und alle sind vergeben. Bitte fragen Sie, wer diesen Code angebracht hat.',
    },
    'full-today': {
      title: 'Für heute alles vergeben',
      text: 'Für heute ist alles vergeben. Bitte versuchen Sie es morgen noch einmal.',
    },
    busy: {
      title: 'Einen Moment, bitte',
      text: 'Diesem Kurzlink kann gerade nicht gefolgt werden. Bitte versuchen Sie es in einer Minute noch einmal.',
    },
    method: {
      title: 'Nur zum Lesen',
      text: 'Kurzlinks lassen sich nur öffnen. Bitte öffnen Sie diese Adresse in einem Browser.',
    },
    malformed: {
      title: 'Das ließ sich nicht lesen',
      text: 'Die Adresse oder die Anfrage ist beschädigt. Bitte scannen Sie den Code noch einmal.',
    },
  },
  password: {
    title: 'Bitte das Passwort',
    text: 'Wer diesen Code angebracht hat, hat ein Passwort davor gesetzt.',
    label: 'Passwort',
    goOn: 'Weiter',
    wrong: 'Das war nicht das Passwort. Bitte versuchen Sie es noch einmal.',
    wait: 'Es gab zu viele falsche Passwörter. Bitte warten Sie {time} und versuchen Sie es dann noch einmal.',
  },
  location: {
    title: 'Wo sind Sie?',
    keep: 'Sie dürfen auch behalten, wo ich bin, auf etwa einen Kilometer gerundet.',
    tell: 'Sagen, wo ich bin',
    without: 'Ohne weiter',
  },
  onward: {
    onTo: 'Weiter zu {host}',
    privacy: 'Wie wir mit Ihren Daten umgehen',
    yes: 'Ja, weiter',
    no: 'Nein, ohne weiter',
  },
  parts: {
    openNow: 'Jetzt geöffnet',
    closedNow: 'Jetzt geschlossen',
    until: 'bis {time}',
    opens: 'öffnet {time}',
    closed: 'Geschlossen',
    saveContact: 'Kontakt speichern',
    addToWallet: 'In die Wallet',
    share: 'Teilen',
    addToCalendar: 'In den Kalender',
    openInMaps: 'In Karten öffnen',
    mapOnWeb: 'Karte im Web',
    transcript: 'Als Text lesen',
    languages: 'Sprachen',
  },
}
