// What the front door is measured against beside Express: `node:http` answering a redirect and doing nothing else.
import { createServer } from 'node:http'

createServer((_request, response) => {
  response.writeHead(302, {
    Location:
      'https://saltmarsh.example/timetable?lang=de&utm_source=pier-poster&utm_medium=print&utm_campaign=summer-26#today',
    'Cache-Control': 'no-store',
    'Content-Length': '0',
  })
  response.end()
}).listen(Number(process.env.PORT), '127.0.0.1')
