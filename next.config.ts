import type { NextConfig } from 'next';

/** For what is no page: scripts of workers, styles, pictures, answers. A page's own is made for each (`src/proxy.ts`). */
const policy = "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; object-src 'none'; frame-ancestors 'none'";
const everywhere = [
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'Referrer-Policy', value: 'no-referrer' },
];

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  serverExternalPackages: ['libsql', 'sharp'],
  devIndicators: false,
  sassOptions: { quietDeps: true, silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'] },
  experimental: { optimizePackageImports: ['react-bootstrap', 'lucide-react'] },
  headers: () =>
    Promise.resolve([
      { source: '/:path*', headers: everywhere },
      { source: '/:kind(_next|api)/:path*', headers: [{ key: 'Content-Security-Policy', value: policy }] },
    ]),
};

export default config;
