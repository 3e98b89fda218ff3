import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

const office = `http://localhost:${process.env.FLIMBO_OFFICE_PORT ?? '4000'}`

export default defineConfig({
  plugins: [react()],
  // The server puts each answer's own nonce in this one's place.
  html: { cspNonce: '__FLIMBO_NONCE__' },
  server: { port: 4080, strictPort: true, proxy: { '/api': { target: office } } },
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1500,
  },
  worker: { format: 'es' },
})
