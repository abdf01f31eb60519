import type { NextConfig } from "next";

const config: NextConfig = {
  // Types are checked by `npm run types`; checking them again in the build doubles the time.
  typescript: { ignoreBuildErrors: true },
  poweredByHeader: false,
  devIndicators: false,
};

export default config;
