import type { Words } from '../words.ts'

export const fr: Words = {
  pages: {
    home: {
      title: 'Liens courts',
      text: 'Cette adresse sert des liens courts. Scannez un code ou saisissez un lien court en entier pour arriver à sa page.',
    },
    unknown: {
      title: 'Ce lien court n’existe pas',
      text: 'Il n’y a rien à cette adresse. Vérifiez les lettres et les chiffres, ou demandez à la personne qui vous l’a donnée.',
    },
    paused: {
      title: 'En pause',
      text: 'Ce code est en pause pour le moment. Réessayez plus tard, ou demandez à la personne qui l’a affiché.',
    },
    deleted: {
      title: 'N’est plus utilisé',
      text: 'Ce code a été retiré et ne mène plus nulle part. Demandez à la personne qui l’a affiché.',
    },
    early: {
      title: 'Pas encore',
      text: 'Ce à quoi mène ce code n’a pas encore commencé. Revenez un peu plus tard.',
    },
    over: {
      title: 'C’est terminé',
      text: 'Ce à quoi menait ce code est terminé. Demandez à la personne qui l’a affiché ce qu’il y a maintenant.',
    },
    full: {
      title: 'Tout est pris',
      text: 'Il y en avait un nombre fixe, et tous sont pris. Demandez à la personne qui a affiché ce code.',
    },
    'full-today': {
      title: 'Tout est pris pour aujourd’hui',
      text: 'Tout est pris pour aujourd’hui. Réessayez demain.',
    },
    busy: {
      title: 'Un instant, s’il vous plaît',
      text: 'Ce lien court ne peut pas être suivi en ce moment. Réessayez dans une minute.',
    },
    method: {
      title: 'En lecture seule',
      text: 'Un lien court peut seulement être ouvert. Ouvrez cette adresse dans un navigateur.',
    },
    malformed: {
      title: 'Lecture impossible',
      text: 'L’adresse ou la demande est endommagée. Scannez le code à nouveau.',
    },
  },
  password: {
    title: 'Mot de passe, s’il vous plaît',
    text: 'La personne qui a affiché ce code l’a protégé par un mot de passe.',
    label: 'Mot de passe',
    goOn: 'Continuer',
    wrong: 'Ce n’était pas le mot de passe. Réessayez.',
    wait: 'Il y a eu trop de mots de passe erronés. Attendez {time}, puis réessayez.',
  },
  location: {
    title: 'Où êtes-vous ?',
    keep: 'Vous pouvez aussi conserver ma position, arrondie à environ un kilomètre.',
    tell: 'Dire où je suis',
    without: 'Continuer sans',
  },
  onward: {
    onTo: 'Vers {host}',
    privacy: 'Comment nous traitons vos données',
    yes: 'Oui, continuer',
    no: 'Non, continuer sans',
  },
  parts: {
    openNow: 'Ouvert maintenant',
    closedNow: 'Fermé maintenant',
    until: 'jusqu’à {time}',
    opens: 'ouvre {time}',
    closed: 'Fermé',
    saveContact: 'Enregistrer le contact',
    addToWallet: 'Ajouter au portefeuille',
    share: 'Partager',
    addToCalendar: 'Ajouter au calendrier',
    openInMaps: 'Ouvrir dans les cartes',
    mapOnWeb: 'Carte sur le web',
    transcript: 'Lire en texte',
    languages: 'Langues',
  },
}
