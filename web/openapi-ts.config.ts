import { defineConfig } from "@hey-api/openapi-ts";

export default defineConfig({
  input: "../src/LivelyTern.Web/obj/openapi/LivelyTern.Web.json",
  output: { path: "src/api/generated" },
  plugins: ["@hey-api/client-fetch", "@hey-api/typescript", "@hey-api/sdk"],
});
