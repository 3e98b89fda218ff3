/** Phones and other devices the stand-ins speak as: user agents of the usual shapes, with how common each is. */
export interface StandInDevice {
  readonly id: string
  readonly label: string
  readonly userAgent: string
  /** Share among the demo's crowd, in parts of a whole that need not be 100. */
  readonly weight: number
}

const iPhone = (os: string, version: string) =>
  `Mozilla/5.0 (iPhone; CPU iPhone OS ${os} like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/${version} Mobile/15E148 Safari/604.1`
const android = (version: string, model: string, chrome: string, mobile = ' Mobile') =>
  `Mozilla/5.0 (Linux; Android ${version}; ${model}) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/${chrome}.0.0.0${mobile} Safari/537.36`

export const STANDIN_DEVICES: readonly StandInDevice[] = [
  { id: 'ios-safari', label: 'Phone, iOS 18, Safari', userAgent: iPhone('18_5', '18.5'), weight: 30 },
  { id: 'ios-17', label: 'Phone, iOS 17, Safari', userAgent: iPhone('17_6', '17.6'), weight: 12 },
  {
    id: 'android-chrome',
    label: 'Phone, Android 15, Chrome',
    userAgent: android('15', 'K', '138'),
    weight: 28,
  },
  {
    id: 'android-13',
    label: 'Phone, Android 13, Chrome',
    userAgent: android('13', 'SM-A536B', '131'),
    weight: 9,
  },
  {
    id: 'android-samsung',
    label: 'Phone, Android 14, Samsung Internet',
    userAgent:
      'Mozilla/5.0 (Linux; Android 14; SAMSUNG SM-S918B) AppleWebKit/537.36 (KHTML, like Gecko) SamsungBrowser/27.0 Chrome/125.0.0.0 Mobile Safari/537.36',
    weight: 8,
  },
  {
    id: 'android-firefox',
    label: 'Phone, Android 15, Firefox',
    userAgent: 'Mozilla/5.0 (Android 15; Mobile; rv:140.0) Gecko/140.0 Firefox/140.0',
    weight: 4,
  },
  {
    id: 'ipad',
    label: 'Tablet, iPadOS 17, Safari',
    userAgent:
      'Mozilla/5.0 (iPad; CPU OS 17_6 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/17.6 Mobile/15E148 Safari/604.1',
    weight: 3,
  },
  {
    id: 'android-tablet',
    label: 'Tablet, Android 14, Chrome',
    userAgent: android('14', 'SM-X710', '137', ''),
    weight: 2,
  },
  {
    id: 'windows-edge',
    label: 'Computer, Windows, Edge',
    userAgent:
      'Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/138.0.0.0 Safari/537.36 Edg/138.0.0.0',
    weight: 2,
  },
  {
    id: 'mac-safari',
    label: 'Computer, macOS, Safari',
    userAgent:
      'Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/18.5 Safari/605.1.15',
    weight: 2,
  },
  {
    id: 'preview',
    label: 'A link preview in a chat',
    userAgent: 'Mozilla/5.0 (compatible; ChatLinkPreviewBot/1.0)',
    weight: 0,
  },
]

export const STANDIN_LANGUAGES: readonly { id: string; label: string; header: string }[] = [
  { id: 'de', label: 'German', header: 'de-DE,de;q=0.9,en;q=0.6' },
  { id: 'nl', label: 'Dutch', header: 'nl-NL,nl;q=0.9,en;q=0.7' },
  { id: 'da', label: 'Danish', header: 'da-DK,da;q=0.9,en;q=0.7' },
  { id: 'en', label: 'English', header: 'en-GB,en;q=0.9' },
]
