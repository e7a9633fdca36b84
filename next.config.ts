import type { NextConfig } from 'next';

const config: NextConfig = {
  poweredByHeader: false,
  serverExternalPackages: ['pg', 'pino', 'sharp'],
  turbopack: { root: import.meta.dirname },
  headers: async () => [
    {
      source: '/:path*',
      headers: [
        { key: 'X-Content-Type-Options', value: 'nosniff' },
        { key: 'Referrer-Policy', value: 'same-origin' },
        { key: 'X-Frame-Options', value: 'DENY' },
        { key: 'Permissions-Policy', value: 'camera=(), microphone=(), geolocation=(), usb=(), serial=(), payment=()' },
      ],
    },
    // Pages have a policy of their own with a word for their scripts, from src/proxy.ts; nothing else runs anything.
    {
      source: '/api/:path*',
      headers: [{ key: 'Content-Security-Policy', value: "default-src 'none'; frame-ancestors 'none'" }],
    },
  ],
};

export default config;
