import type { Words } from '../words.ts'

export const tr: Words = {
  pages: {
    home: {
      title: 'Kısa bağlantılar',
      text: 'Bu adreste kısa bağlantılar var. Sayfasına gitmek için bir kodu tarayın ya da bir kısa bağlantıyı sonuna kadar yazın.',
    },
    unknown: {
      title: 'Böyle bir kısa bağlantı yok',
      text: 'Bu adreste bir şey yok. Harfleri ve rakamları kontrol edin ya da size verene sorun.',
    },
    paused: {
      title: 'Şimdilik duraklatıldı',
      text: 'Bu kod şu anda duraklatılmış. Daha sonra yeniden deneyin ya da koyana sorun.',
    },
    deleted: {
      title: 'Artık kullanılmıyor',
      text: 'Bu kod geri çekildi ve artık hiçbir yere götürmüyor. Koyana sorun.',
    },
    early: {
      title: 'Henüz değil',
      text: 'Bu kodun götürdüğü şey henüz başlamadı. Biraz sonra yeniden gelin.',
    },
    over: {
      title: 'Bu sona erdi',
      text: 'Bu kodun götürdüğü şey sona erdi. Şimdi ne olduğunu koyana sorun.',
    },
    full: { title: 'Hepsi alındı', text: 'Belirli bir sayıda vardı ve hepsi alındı. Bu kodu koyana sorun.' },
    'full-today': { title: 'Bugünlük hepsi alındı', text: 'Bugünlük hepsi alındı. Yarın yeniden deneyin.' },
    busy: {
      title: 'Bir dakika, lütfen',
      text: 'Bu kısa bağlantı şu anda açılamıyor. Bir dakika sonra yeniden deneyin.',
    },
    method: {
      title: 'Yalnızca okumak için',
      text: 'Kısa bağlantılar yalnızca açılabilir. Bu adresi bir tarayıcıda açın.',
    },
    malformed: { title: 'Bu okunamadı', text: 'Adres ya da istek bozuk. Kodu yeniden tarayın.' },
  },
  password: {
    title: 'Parola, lütfen',
    text: 'Bu kodu koyan, önüne bir parola koymuş.',
    label: 'Parola',
    goOn: 'Devam',
    wrong: 'Bu, parola değildi. Yeniden deneyin.',
    wait: 'Çok fazla yanlış parola girildi. {time} bekleyin, sonra yeniden deneyin.',
  },
  location: {
    title: 'Neredesiniz?',
    keep: 'Nerede olduğumu yaklaşık bir kilometreye yuvarlayarak saklayabilirsiniz.',
    tell: 'Nerede olduğumu bildir',
    without: 'Bildirmeden devam et',
  },
  onward: {
    onTo: '{host} adresine geçiliyor',
    privacy: 'Verilerinizi nasıl işliyoruz',
    yes: 'Evet, devam',
    no: 'Hayır, onsuz devam',
  },
  parts: {
    openNow: 'Şu anda açık',
    closedNow: 'Şu anda kapalı',
    until: 'kapanış: {time}',
    opens: 'açılış: {time}',
    closed: 'Kapalı',
    saveContact: 'Kişiyi kaydet',
    addToWallet: 'Cüzdana ekle',
    share: 'Paylaş',
    addToCalendar: 'Takvime ekle',
    openInMaps: 'Haritalarda aç',
    mapOnWeb: 'Web’de harita',
    transcript: 'Metin olarak oku',
    languages: 'Diller',
  },
}
