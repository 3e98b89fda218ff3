// What the front door is measured against: Express 5 answering a redirect and doing nothing else.
import express from 'express'

const app = express()
app.get('/:slug', (_request, response) => {
  response.redirect(
    302,
    'https://saltmarsh.example/timetable?lang=de&utm_source=pier-poster&utm_medium=print&utm_campaign=summer-26#today',
  )
})
app.get('/', (_request, response) => {
  response.send('ready')
})
app.listen(Number(process.env.PORT), '127.0.0.1')
