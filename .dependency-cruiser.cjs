/**
 * The layer rule: core <- catalog <- words <- formats <- protocol <- server <- app. Each layer may import only what stands left of it. Tests
 * stand beside what they test and may use whatever they need for it.
 */
const layer = (name, from, forbidden) => ({
  name,
  severity: "error",
  from: { path: from, pathNot: "\\.test\\.tsx?$|^core/testing/" },
  to: { path: forbidden },
});

/** The order within the core, from the ground up: a room may import those in its own row and in the rows above it. */
const rooms = [
  ["text"],
  ["quantity", "chemistry"],
  [
    "relation",
    "measure",
    "judgement",
    "calibration",
    "kinetics",
    "spectra",
    "equilibria",
    "curves",
    "adsorption",
    "timing",
    "montecarlo",
  ],
  ["rules"],
  ["record"],
  ["inputs"],
  ["method"],
  ["run"],
  ["change"],
  ["stages"],
  ["evaluate"],
  ["working", "plan", "prepare", "simulate", "paper"],
];
const orderOfRooms = rooms.slice(0, -1).map((row, i) => ({
  name: `core-rooms-in-order-${row[0]}`,
  severity: "error",
  from: { path: `^core/(${row.join("|")})/`, pathNot: "\\.test\\.ts$" },
  to: {
    path: `^core/(${rooms
      .slice(i + 1)
      .flat()
      .join("|")})/`,
  },
}));

/** Folders of the screens of one kind of stage. */
const ofOneKind = "(titration|preparation|calibration|unknown|rate|curve|isotherm)";

module.exports = {
  forbidden: [
    layer("core-stands-alone", "^core/", "^(catalog|words|formats|protocol|server|app|workers|devices|e2e)/"),
    layer(
      "catalog-knows-core-only",
      "^catalog/",
      "^(words|formats|protocol|server|app|workers|devices|e2e)/",
    ),
    layer("words-know-core-only", "^words/", "^(catalog|formats|protocol|server|app|workers|devices|e2e)/"),
    layer("formats-below-protocol", "^formats/", "^(protocol|server|app|workers|devices|e2e)/"),
    layer("protocol-below-server", "^protocol/", "^(server|app|workers|devices|e2e)/"),
    layer("workers-know-core-only", "^workers/", "^(catalog|words|formats|protocol|server|app|devices|e2e)/"),
    layer("devices-know-core-only", "^devices/", "^(catalog|formats|protocol|server|app|workers|e2e)/"),
    layer("database-knows-no-command", "^server/database/", "^server/(?!database/)"),
    layer("queries-change-nothing", "^server/queries/", "^server/commands/"),
    layer("server-below-app", "^server/", "^(app|workers|devices|e2e)/"),
    {
      name: "core-is-pure",
      comment:
        "No interface, database or Node API in the core; small parsers and schema builders are all it may use.",
      severity: "error",
      from: { path: "^core/", pathNot: "\\.test\\.ts$|^core/testing/long-test" },
      to: {
        dependencyTypes: ["npm", "npm-dev", "core"],
        pathNot: "node_modules/(jsep|@sinclair/typebox)/",
      },
    },
    {
      name: "browser-parts-take-no-database",
      comment: "Only routes (loaders, actions) and *.server.ts files reach the server layer at run time.",
      severity: "error",
      from: { path: "^app/(features|ui|theme)/", pathNot: "\\.server\\.tsx?$" },
      to: { path: "^server/", dependencyTypesNot: ["type-only"] },
    },
    {
      name: "core-rooms-are-known",
      comment: "A new room takes its place in the order above.",
      severity: "error",
      from: {},
      to: { path: "^core/", pathNot: `^core/((${rooms.flat().join("|")}|testing)/|[a-z]+\\.ts$)` },
    },
    {
      name: "shapes-and-builders-are-for-tests",
      comment: "core/testing uses whatever it needs, as tests do; nothing that ships uses it.",
      severity: "error",
      from: {
        pathNot:
          "\\.test\\.tsx?$|^(core|formats)/testing/|^formats/examples\\.ts$|^scripts/|^server/seed/|^e2e/",
      },
      to: { path: "^(core|formats)/testing/" },
    },
    ...orderOfRooms,
    layer("stages-below-the-run-screen", "^app/features/stages/", "^app/features/run/"),
    layer(
      "shared-parts-of-stages",
      "^app/features/stages/(shared|photometer)/",
      `^app/features/stages/${ofOneKind}/`,
    ),
    {
      name: "a-kind-of-stage-by-itself",
      severity: "error",
      from: { path: `^app/features/stages/${ofOneKind}/`, pathNot: "\\.test\\.tsx?$" },
      to: { path: `^app/features/stages/${ofOneKind}/`, pathNot: "^app/features/stages/$1/" },
    },
    { name: "no-circles", severity: "error", from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: "node_modules" },
    exclude: { path: "^(build|\\.react-router)/|\\+types/" },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: "tsconfig.json" },
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "node", "default", "types"],
    },
  },
};
