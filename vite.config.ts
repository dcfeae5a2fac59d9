import { reactRouter } from "@react-router/dev/vite";
import { defineConfig } from "vite";

export default defineConfig(({ isSsrBuild }) => ({
  plugins: [reactRouter()],
  resolve: { tsconfigPaths: true },
  build: {
    target: "es2022",
    ...(isSsrBuild ? { rolldownOptions: { input: "./app/http.server.ts" } } : {}),
  },
}));
