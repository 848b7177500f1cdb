import tailwindcss from '@tailwindcss/vite'

/** Decorators of the request classes need these in every compiler that meets them. */
const decorators = { target: 'es2022' as const, tsconfigRaw: { compilerOptions: { experimentalDecorators: true, useDefineForClassFields: false } } }
const strict = { compilerOptions: { experimentalDecorators: true, useDefineForClassFields: false, noUncheckedIndexedAccess: true } }

/** Sites whose pages may hold our frames; any, unless a campus names its own. */
const frameAncestors = (process.env.COURSE_SITES ?? '*').split(' ')

/** A lecture hall behind one address signs in within a minute; a program that tries keys does more. */
const crowd = { tokensPerInterval: 600, interval: 60_000, headers: true }

export default defineNuxtConfig({
  compatibilityDate: '2026-11-01',
  ssr: false,
  telemetry: false,
  devtools: { enabled: false },
  modules: ['@pinia/nuxt', 'nuxt-security', '@nuxt/eslint'],
  css: ['~/assets/main.css'],
  app: {
    head: { title: 'Karstland', htmlAttrs: { lang: 'en-GB' }, meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1' }, { name: 'color-scheme', content: 'light dark' }], link: [{ rel: 'icon', type: 'image/svg+xml', href: '/mark.svg' }] },
  },
  components: { dirs: [{ path: '~/components', pathPrefix: false }] },
  imports: { autoImport: true },
  spaLoadingTemplate: 'spa-loading.html',
  vue: { compilerOptions: { isCustomElement: (tag) => tag.startsWith('media-') } },
  vite: { plugins: [tailwindcss()], esbuild: decorators, build: { target: 'es2022' } },
  nitro: {
    preset: 'node-server',
    esbuild: { options: decorators },
    experimental: { openAPI: true },
    openAPI: { production: 'runtime', route: '/api/openapi.json', meta: { title: 'Karstland', description: 'Lecture capture, library, release and placement', version: '0.1.0' }, ui: { scalar: false, swagger: false } },
    typescript: { strict: true, tsConfig: strict },
    compressPublicAssets: { gzip: true },
  },
  typescript: { strict: true, tsConfig: strict, sharedTsConfig: strict, nodeTsConfig: strict },
  eslint: { config: { stylistic: false } },
  security: {
    headers: {
      contentSecurityPolicy: {
        'default-src': ['\'self\''], 'script-src': ['\'self\'', '\'nonce-{{nonce}}\'', '\'strict-dynamic\''], 'style-src': ['\'self\'', '\'unsafe-inline\''],
        'img-src': ['\'self\'', 'data:', 'blob:'], 'media-src': ['\'self\'', 'blob:'], 'connect-src': ['\'self\''], 'font-src': ['\'self\''], 'worker-src': ['\'self\'', 'blob:'],
        'frame-ancestors': ['\'none\''], 'base-uri': ['\'none\''], 'form-action': ['\'self\''], 'object-src': ['\'none\''], 'script-src-attr': ['\'none\''], 'upgrade-insecure-requests': false,
      },
      crossOriginEmbedderPolicy: false,
      crossOriginOpenerPolicy: 'same-origin',
      crossOriginResourcePolicy: 'same-origin',
      referrerPolicy: 'strict-origin-when-cross-origin',
      strictTransportSecurity: process.env.PUBLIC_ORIGIN?.startsWith('https:') ? { maxAge: 15552000 } : false,
      xFrameOptions: 'DENY',
      permissionsPolicy: { 'camera': [], 'microphone': [], 'geolocation': [], 'display-capture': [], 'fullscreen': ['self'], 'picture-in-picture': ['self'] },
    },
    // Limits are set per route below; the others ask access and are bounded by it.
    rateLimiter: false,
    requestSizeLimiter: false,
    xssValidator: false,
    corsHandler: false,
    allowedMethodsRestricter: false,
    hidePoweredBy: true,
    basicAuth: false,
    csrf: false,
  },
  routeRules: {
    // A frame on somebody else's page: framed on purpose, and its sign-in window must keep its opener.
    '/embed/**': {
      security: {
        headers: {
          contentSecurityPolicy: { 'frame-ancestors': frameAncestors }, xFrameOptions: false, crossOriginOpenerPolicy: 'unsafe-none', crossOriginResourcePolicy: 'cross-origin',
        },
      },
    },
    '/enter/**': { security: { headers: { crossOriginOpenerPolicy: 'unsafe-none' } } },
    '/api/auth/**': { security: { headers: { crossOriginOpenerPolicy: 'unsafe-none' }, rateLimiter: crowd } },
    // Programs read once an hour; somebody who guesses addresses asks more often.
    '/calendar/**': { security: { rateLimiter: { tokensPerInterval: 300, interval: 60_000, headers: true } } },
    '/api/embed/*/ticket': { security: { rateLimiter: crowd } },
    '/api/embed/*/renew': { security: { rateLimiter: crowd } },
    // Course sites may show the poster of nothing, but fonts and scripts of our frames come from here.
    '/_nuxt/**': { headers: { 'cache-control': 'public, max-age=31536000, immutable' } },
  },
})
