import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";
import { VitePWA } from "vite-plugin-pwa";

/** What a paired phone installs: the page itself, so that it opens without a network. Answers are kept by `src/api/kept.ts`. */
const installed = VitePWA({
  injectRegister: false,
  registerType: "autoUpdate",
  manifest: {
    name: "Noxel",
    short_name: "Noxel",
    description: "Is the loaded rig within its ratings?",
    display: "standalone",
    start_url: "/",
    scope: "/",
    background_color: "#f5f1e6",
    theme_color: "#1e2b29",
    icons: [
      { src: "/icon-192.png", sizes: "192x192", type: "image/png" },
      { src: "/icon-512.png", sizes: "512x512", type: "image/png", purpose: "any" },
      { src: "/icon-512.png", sizes: "512x512", type: "image/png", purpose: "maskable" },
    ],
  },
  workbox: {
    globPatterns: ["**/*.{js,css,html,svg,png,woff2,mp3}"],
    navigateFallback: "/index.html",
    navigateFallbackDenylist: [/^\/api\//, /^\/join/, /^\/authority/],
    cleanupOutdatedCaches: true,
  },
});

export default defineConfig({
  plugins: [react(), tailwindcss(), installed],
  build: { outDir: "../src/noxel/page", emptyOutDir: true, assetsInlineLimit: 0, sourcemap: false },
  server: { proxy: { "/api": "http://127.0.0.1:8710" } },
});
