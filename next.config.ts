import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['better-sqlite3', 'manifold-3d'],
  poweredByHeader: false,
  devIndicators: false,
  // `npm test` looks at the types itself; whoever only wants the demo need not wait for it.
  typescript: { ignoreBuildErrors: true },
  experimental: { optimizePackageImports: ['@chakra-ui/react'] },
};

export default config;
