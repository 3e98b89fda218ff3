const MARKUP: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
}

/** Text where markup is read: every sign that could be markup is written as a reference (HTML Standard, character references). */
export function escapeMarkup(text: string): string {
  return text.replace(/[&<>"']/g, (sign) => MARKUP[sign] ?? sign)
}
