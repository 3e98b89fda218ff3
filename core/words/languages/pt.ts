import type { Words } from '../words.ts'

export const pt: Words = {
  pages: {
    home: {
      title: 'Ligações curtas',
      text: 'Neste endereço há ligações curtas. Leia um código, ou escreva uma ligação curta até ao fim, para chegar à sua página.',
    },
    unknown: {
      title: 'Esta ligação curta não existe',
      text: 'Não há nada neste endereço. Verifique as letras e os algarismos, ou pergunte a quem lho deu.',
    },
    paused: {
      title: 'Em pausa',
      text: 'Este código está em pausa neste momento. Tente mais tarde, ou pergunte a quem o afixou.',
    },
    deleted: {
      title: 'Já não está em uso',
      text: 'Este código foi retirado e já não leva a lado nenhum. Pergunte a quem o afixou.',
    },
    early: {
      title: 'Ainda não',
      text: 'Aquilo a que este código leva ainda não começou. Volte um pouco mais tarde.',
    },
    over: {
      title: 'Já terminou',
      text: 'Aquilo a que este código levava terminou. Pergunte a quem o afixou o que há agora.',
    },
    full: {
      title: 'Está tudo atribuído',
      text: 'Havia um número fixo, e está tudo atribuído. Pergunte a quem afixou este código.',
    },
    'full-today': {
      title: 'Por hoje está tudo atribuído',
      text: 'Por hoje está tudo atribuído. Tente amanhã.',
    },
    busy: {
      title: 'Um momento, por favor',
      text: 'Neste momento não é possível seguir esta ligação curta. Tente dentro de um minuto.',
    },
    method: {
      title: 'Só para leitura',
      text: 'Uma ligação curta só pode ser aberta. Abra este endereço num navegador.',
    },
    malformed: {
      title: 'Não foi possível ler',
      text: 'O endereço ou o pedido está danificado. Leia o código outra vez.',
    },
  },
  password: {
    title: 'Palavra-passe, por favor',
    text: 'Quem afixou este código protegeu-o com uma palavra-passe.',
    label: 'Palavra-passe',
    goOn: 'Continuar',
    wrong: 'A palavra-passe não está certa. Tente outra vez.',
    wait: 'Houve demasiadas palavras-passe erradas. Espere {time} e tente outra vez.',
  },
  location: {
    title: 'Onde está?',
    keep: 'Também podem guardar onde estou, arredondado a cerca de um quilómetro.',
    tell: 'Dizer onde estou',
    without: 'Continuar sem isso',
  },
  onward: {
    onTo: 'Para {host}',
    privacy: 'Como tratamos os seus dados',
    yes: 'Sim, continuar',
    no: 'Não, continuar sem isso',
  },
  parts: {
    openNow: 'Aberto agora',
    closedNow: 'Fechado agora',
    until: 'até {time}',
    opens: 'abre {time}',
    closed: 'Fechado',
    saveContact: 'Guardar contacto',
    addToWallet: 'Adicionar à carteira',
    share: 'Partilhar',
    addToCalendar: 'Adicionar ao calendário',
    openInMaps: 'Abrir nos mapas',
    mapOnWeb: 'Mapa na web',
    transcript: 'Ler como texto',
    languages: 'Idiomas',
  },
}
