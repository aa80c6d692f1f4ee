import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['better-sqlite3', 'manifold-3d'],
  poweredByHeader: false,
  devIndicators: false,
  experimental: { optimizePackageImports: ['@chakra-ui/react'] },
};

export default config;
