import {
  Alert,
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Typography,
} from '@mui/material'
import { addressInWords, routesApi, type WholeRoute } from '@flimbo/core/routing'
import { sentenceOf, useAnswer, useChange } from '../api/index.ts'
import { joinNames } from '@flimbo/core/conditions'
import { quantity, number } from '@flimbo/core/formats'

function forWhom(scans: number, elsewhere: number): string {
  if (scans === 0) return 'This route has had no scan yet.'
  const latest = `Of the last ${quantity(scans, 'scan')}`
  return elsewhere === 0
    ? `${latest}, all would go where they went.`
    : `${latest}, ${number(elsewhere)} would now go elsewhere:`
}

/** What publishing would change and for whom, before it does. */
export function PublishDialog({
  route,
  version,
  close,
}: {
  route: WholeRoute
  version: number
  close: () => void
}) {
  const effect = useAnswer(routesApi.effect, { params: { id: route.id } })
  const publish = useChange(routesApi.publish)
  const go = () => {
    publish.mutate(
      { params: { id: route.id }, body: { version: route.version, draftVersion: version } },
      { onSuccess: close },
    )
  }
  const { data } = effect
  return (
    <Dialog open onClose={close} fullWidth maxWidth="sm" aria-labelledby="publish-title">
      <DialogTitle id="publish-title">Publish “{route.name}”</DialogTitle>
      <DialogContent>
        {publish.error && (
          <Alert severity="error" variant="outlined" sx={{ mb: 2 }}>
            {sentenceOf(publish.error, 'It could not be published. Nothing has changed.')}
          </Alert>
        )}
        {!data ? (
          <Typography role="status">Deciding the latest scans again…</Typography>
        ) : (
          <>
            <Typography variant="h3">What changes</Typography>
            <Box component="ul" aria-label="What changes" sx={{ mt: 0.5 }}>
              {data.changes.map((sentence) => (
                <li key={sentence}>{sentence}</li>
              ))}
            </Box>
            <Typography variant="h3">For whom</Typography>
            <Typography role="status" aria-label="For whom">
              {forWhom(data.scans, data.elsewhere)}
            </Typography>
            <Box component="ul" sx={{ mt: 0.5 }}>
              {data.moved.slice(0, 8).map(({ was, is, scans, places }) => (
                <li key={`${was} ${is}`}>
                  {number(scans)} to {addressInWords(is)} instead of {addressInWords(was)}
                  {places.length > 0 ? `, most from ${joinNames(places, 'and')}` : ''}
                </li>
              ))}
            </Box>
            {data.broken.length > 0 && (
              <Alert severity="warning" variant="outlined">
                <Typography sx={{ fontWeight: 650 }}>
                  {quantity(data.broken.length, 'expectation')} would not be met:
                </Typography>
                <ul>
                  {data.broken.map(({ name, expected, would }) => (
                    <li key={name}>
                      {name}: {addressInWords(would)} instead of {addressInWords(expected)}
                    </li>
                  ))}
                </ul>
              </Alert>
            )}
            {data.scans > 0 && (
              <Typography variant="caption" color="textSecondary">
                Of a past scan its first language is known and no query; passwords count as given, limits as
                not reached.
              </Typography>
            )}
          </>
        )}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={close}>
          Cancel
        </Button>
        <Button variant="contained" autoFocus disabled={!data || publish.isPending} onClick={go}>
          Publish for {quantity(route.codes, 'code')}
        </Button>
      </DialogActions>
    </Dialog>
  )
}
