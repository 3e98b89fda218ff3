import { Box, Stack, Table, TableBody, TableCell, TableHead, TableRow, Typography } from '@mui/material'
import { CHART_COLOURS, intervalsChart } from '@flimbo/core/charts'
import { number, percent, rateWithin } from '@flimbo/core/formats'
import { resultsApi, splitTests, verdictInWords, type SplitTest } from '@flimbo/core/results'
import { useAnswer } from '../api/index.ts'
import { Sheet } from '../ui/index.ts'
import { TakeAway } from './TakeAway.tsx'
import type { AskedResults } from './useResults.ts'

/** What a test is planned for where nothing else is said: on the route itself both can be chosen. */
const RATE = 0.05
const LIFT = 0.01

/** What came of split tests; nothing where no lane parted its scans. */
export function SplitTestsSheet({ asked: { of, from, to, view } }: { asked: AskedResults }) {
  const { data } = useAnswer(resultsApi.ask, {
    body: {
      ...of,
      from,
      to,
      questions: [{ what: 'scans', by: ['variant'], filters: view.filters, top: 500 }],
    },
  })
  const answer = data?.answers[0]
  const tests = answer ? splitTests(answer, RATE, LIFT) : []
  if (tests.length === 0) return null
  return (
    <Sheet title="Split tests">
      <Stack spacing={2}>
        {tests.map((test) => (
          <Tested key={test.variants[0]?.key} test={test} />
        ))}
        <Typography variant="caption" color="textSecondary">
          Planned for {percent(RATE)} leads a visitor and a difference of {percent(LIFT)}; both are chosen on
          the route. A visitor keeps a variant for the day.
        </Typography>
      </Stack>
    </Sheet>
  )
}

function Tested({ test: { name, variants, verdict } }: { test: SplitTest }) {
  const rows = variants.map((variant, i) => ({ ...variant, judged: verdict.variants[i] }))
  return (
    <Box>
      <Stack direction="row" sx={{ alignItems: 'center' }}>
        <Typography variant="h3" sx={{ flex: 1 }}>
          {name}
        </Typography>
        <TakeAway
          title={`${name}: leads a visitor`}
          chart={() =>
            intervalsChart({
              rows: rows.flatMap(({ name: variant, judged }) =>
                judged?.rate ? [{ name: variant, value: judged.rate.value, between: judged.rate }] : [],
              ),
              write: percent,
              mark: null,
              colours: CHART_COLOURS.light,
            })
          }
          table={() => ({
            headings: [
              'Variant',
              'Scans',
              'Unique scans',
              'Leads',
              'Leads a visitor',
              'From (95 %)',
              'To (95 %)',
              'Chance of being best',
            ],
            rows: rows.map(({ name: variant, scans, uniques, leads, judged }) => [
              variant,
              scans,
              uniques,
              leads,
              judged?.rate?.value ?? null,
              judged?.rate?.low ?? null,
              judged?.rate?.high ?? null,
              judged?.chance ?? null,
            ]),
          })}
        />
      </Stack>
      <Table size="small" aria-label={`Variants of ${name}`}>
        <TableHead>
          <TableRow>
            <TableCell>Variant</TableCell>
            <TableCell align="right">Scans</TableCell>
            <TableCell align="right">Unique</TableCell>
            <TableCell align="right">Leads</TableCell>
            <TableCell align="right">Leads a visitor (95 %)</TableCell>
            <TableCell align="right">Against the best other (95 %)</TableCell>
            <TableCell align="right">Chance of being best</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {rows.map(({ key, name: variant, scans, uniques, leads, judged }) => (
            <TableRow key={key}>
              <TableCell component="th" scope="row">
                {variant}
              </TableCell>
              <TableCell align="right">{number(scans)}</TableCell>
              <TableCell align="right">{number(uniques)}</TableCell>
              <TableCell align="right">{number(leads)}</TableCell>
              <TableCell align="right">{rateWithin(judged?.rate)}</TableCell>
              <TableCell align="right">{rateWithin(judged?.ahead)}</TableCell>
              <TableCell align="right">{judged?.rate ? percent(judged.chance) : '–'}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      <Typography variant="body2" sx={{ mt: 1 }}>
        {verdictInWords(
          verdict,
          variants.map((each) => each.name),
        )}
      </Typography>
    </Box>
  )
}
