/** Import directions of the front end; CI fails when no module was read. */
module.exports = {
  forbidden: [
    { name: 'no-cycles', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'steps-stay-apart',
      severity: 'error',
      from: { path: '^src/steps/([^/]+)/' },
      to: { path: '^src/steps/([^/]+)/', pathNot: '^src/steps/$1/' },
    },
    {
      name: 'drawing-is-pure',
      severity: 'error',
      from: { path: '^src/(drawing|scene)/' },
      to: { path: '^src/(api|plan|steps|app|tally)/' },
    },
    {
      name: 'parts-see-no-step',
      severity: 'error',
      from: { path: '^src/(ui|charts|units)/' },
      to: { path: '^src/(api|plan|steps|app|tally)/' },
    },
    {
      name: 'nothing-sees-the-app',
      severity: 'error',
      from: { path: '^src/(steps|tally|plan|api)/' },
      to: { path: '^src/app/' },
    },
  ],
  options: {
    tsConfig: { fileName: 'tsconfig.app.json' },
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.test\\.tsx?$|schema\\.d\\.ts$' },
  },
};
