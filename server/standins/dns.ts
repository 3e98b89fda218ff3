import { createSocket } from 'node:dgram'
import packet from 'dns-packet'

/** Records of the stand-in, by name and type; names in small letters. */
export interface StandInRecords {
  readonly cname?: Readonly<Record<string, string>>
  readonly txt?: Readonly<Record<string, readonly string[]>>
}

export interface DnsStandIn {
  readonly port: number
  /** Sets or changes records, as somebody would at their provider. */
  set(records: StandInRecords): void
  close(): Promise<void>
}

const TTL_S = 60
const NAME_ERROR = 3

/**
 * A name server over UDP for a few records (RFC 1035): enough for a resolver to be asked for CNAME and
 * TXT. A name it does not know is answered with a name error, as a real server would.
 */
export function dnsStandIn(port: number, host: string, records: StandInRecords = {}): Promise<DnsStandIn> {
  const cname = new Map(Object.entries(records.cname ?? {}))
  const txt = new Map(Object.entries(records.txt ?? {}))
  const socket = createSocket(host.includes(':') ? 'udp6' : 'udp4')

  function answersTo({ name, type }: packet.Question): packet.Answer[] {
    const asked = name.toLowerCase()
    const target = cname.get(asked)
    const texts = txt.get(asked)
    if (type === 'CNAME' && target !== undefined) return [{ name, type: 'CNAME', ttl: TTL_S, data: target }]
    if (type === 'TXT' && texts !== undefined)
      return texts.map((data) => ({ name, type: 'TXT', ttl: TTL_S, data }))
    return []
  }

  socket.on('message', (message, { address, port: to }) => {
    let question: packet.Packet
    try {
      question = packet.decode(message)
    } catch {
      return
    }
    const questions = question.questions ?? []
    const answers = questions.flatMap(answersTo)
    const known = questions.some(({ name }) => cname.has(name.toLowerCase()) || txt.has(name.toLowerCase()))
    socket.send(
      packet.encode({
        type: 'response',
        id: question.id ?? 0,
        flags: packet.AUTHORITATIVE_ANSWER | (known ? 0 : NAME_ERROR),
        questions,
        answers,
      }),
      to,
      address,
    )
  })

  return new Promise((resolve, reject) => {
    socket.once('error', reject)
    socket.bind(port, host, () => {
      socket.off('error', reject)
      resolve({
        port: socket.address().port,
        set(more) {
          for (const [name, target] of Object.entries(more.cname ?? {})) cname.set(name.toLowerCase(), target)
          for (const [name, texts] of Object.entries(more.txt ?? {})) txt.set(name.toLowerCase(), texts)
        },
        close: () =>
          new Promise((closed) => {
            socket.close(() => {
              closed()
            })
          }),
      })
    })
  })
}
