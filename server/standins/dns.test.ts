import { createSocket } from 'node:dgram'
import packet from 'dns-packet'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { dnsStandIn, type DnsStandIn } from './index.ts'

let dns: DnsStandIn
beforeAll(async () => {
  dns = await dnsStandIn(0, '127.0.0.1', {
    cname: { 'qr.test': 'go.test' },
    txt: { '_flimbo.qr.test': ['flimbo=abc', 'v=spf1 -all'] },
  })
})
afterAll(() => dns.close())

/** Sends bytes to the stand-in and waits a moment for what comes back. */
function send(bytes: Uint8Array): Promise<packet.Packet | null> {
  return new Promise((resolve) => {
    const socket = createSocket('udp4')
    const late = setTimeout(() => {
      socket.close()
      resolve(null)
    }, 300)
    socket.once('message', (message) => {
      clearTimeout(late)
      socket.close()
      resolve(packet.decode(message))
    })
    socket.send(bytes, dns.port, '127.0.0.1')
  })
}
const ask = (name: string, type: 'CNAME' | 'TXT' | 'A', id = 7) =>
  send(packet.encode({ type: 'query', id, flags: packet.RECURSION_DESIRED, questions: [{ name, type }] }))

/** The response code in the last four bits of the flags (RFC 1035, section 4.1.1): 0 is no error, 3 a name error. */
const code = (answer: packet.Packet | null) => (answer?.flags ?? 15) & 15

describe('the DNS stand-in, packet by packet', () => {
  // RFC 1035, section 4.1.1: the answer carries the question's number and question, and says it is a response.
  it('answers with the number and the question it was asked', async () => {
    const answer = await ask('QR.test', 'CNAME', 4242)
    expect(answer).toMatchObject({
      id: 4242,
      type: 'response',
      questions: [{ name: 'QR.test', type: 'CNAME' }],
    })
    expect(answer?.answers).toMatchObject([{ type: 'CNAME', data: 'go.test' }])
  })

  it('gives every text of a name', async () => {
    const answer = await ask('_flimbo.qr.test', 'TXT')
    const texts = answer?.answers?.map((record) => (record.type === 'TXT' ? String(record.data) : ''))
    expect(texts).toEqual(['flimbo=abc', 'v=spf1 -all'])
  })

  it('tells a name it does not know from one that has no such record', async () => {
    expect(code(await ask('nobody.test', 'CNAME'))).toBe(3)
    const other = await ask('qr.test', 'A')
    expect([code(other), other?.answers]).toEqual([0, []])
  })

  it('takes records that are set later, in any case, over older ones', async () => {
    dns.set({ cname: { 'Later.test': 'a.test' } })
    dns.set({ cname: { 'later.TEST': 'b.test' } })
    expect((await ask('later.test', 'CNAME'))?.answers).toMatchObject([{ data: 'b.test' }])
  })

  it.each([
    ['nothing', new Uint8Array(0)],
    ['a single byte', new Uint8Array([1])],
    ['noise', new Uint8Array(64).fill(255)],
    [
      'half a question',
      packet.encode({ type: 'query', id: 1, questions: [{ name: 'qr.test', type: 'TXT' }] }).subarray(0, 15),
    ],
  ])('survives %s', async (_name, bytes) => {
    await send(bytes)
    expect(code(await ask('qr.test', 'CNAME'))).toBe(0)
  })
})
