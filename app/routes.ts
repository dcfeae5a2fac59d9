import { index, route, type RouteConfig } from "@react-router/dev/routes";

export default [
  index("routes/bench.tsx"),
  route("runs/:runId", "routes/run.tsx"),
  route("runs/:runId/changes", "routes/run-changes.ts"),
  route("runs/:runId/working", "routes/working.tsx"),
  route("shelf", "routes/shelf.tsx"),
  route("shelf/new", "routes/shelf-new.tsx"),
  route("shelf/labels", "routes/labels.tsx"),
  route("shelf/lineage", "routes/lineage.tsx"),
  route("shelf/:solutionId", "routes/bottle.tsx"),
  route("calculate", "routes/calculate.tsx"),
  route("methods", "routes/methods.tsx"),
  route("methods/import", "routes/methods-import.ts"),
  route("methods/new", "routes/method-new.tsx"),
  route("methods/:methodId", "routes/method.tsx"),
  route("methods/:methodId/edit", "routes/method-edit.tsx"),
  route("methods/:methodId/plan", "routes/method-plan.tsx"),
  route("methods/:methodId/export", "routes/method-export.ts"),
  route("house-rules", "routes/house-rules.tsx"),
  route("*", "routes/not-found.tsx"),
] satisfies RouteConfig;
