import { contentOf, type Code } from '@flimbo/core/codes'
import { number } from '@flimbo/core/formats'
import { densityGain, encode, gainPhrase, QUIET_ZONE, RECOVERY, type Level } from '@flimbo/core/symbol'
import { Copyable, Fact, Facts } from '../ui/index.ts'

/** What a symbol carries and how it is built, at a printed size. */
export function SymbolFacts({ code, level, mm }: { code: Code; level: Level; mm: number }) {
  const link = contentOf(code)
  const symbol = encode(link, level)
  const modes = [...new Set(symbol.segments.map(({ mode }) => mode))].join(' and ')
  const module = mm / (symbol.side + 2 * QUIET_ZONE)
  return (
    <Facts>
      <Fact name="Carries">
        <Copyable value={link} label="what the symbol carries" />
      </Fact>
      <Fact name="Side">
        {symbol.side} × {symbol.side} modules (version {symbol.version})
      </Fact>
      <Fact name="Gain">{gainPhrase(densityGain(link, code.finalAddress, level))}</Fact>
      <Fact name="Level">
        {level}: about {Math.round(RECOVERY[level] * 100)} % may be lost
      </Fact>
      <Fact name="Mode">{modes}</Fact>
      <Fact name="Module">{module.toFixed(2)} mm</Fact>
      <Fact name="Quiet zone">
        {QUIET_ZONE} modules, {(QUIET_ZONE * module).toFixed(1)} mm on each side
      </Fact>
      <Fact name="Reads from">about {number(Math.round(mm))} cm away and nearer: ten times its side</Fact>
    </Facts>
  )
}
