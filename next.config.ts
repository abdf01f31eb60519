import type { NextConfig } from "next";

const config: NextConfig = {
  // Types are checked by `npm run types`; checking them again in the build doubles the time.
  typescript: { ignoreBuildErrors: true },
  // As much as a bundle of tool outputs may have (app/api/body.ts); the default of 1 MB is less than one large machine.
  experimental: { serverActions: { bodySizeLimit: "24mb" } },
  poweredByHeader: false,
  devIndicators: false,
};

export default config;
