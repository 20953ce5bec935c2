export const VIEWS = [
  { id: 'rails', title: 'Rails', hint: '1', words: 'mounts feet spans rafters racking' },
  { id: 'cut', title: 'Cut list', hint: '2', words: 'sticks saw splices offcuts stock' },
  { id: 'chalk', title: 'Chalk lines', hint: '3', words: 'crew sheet tape layout marks' },
  {
    id: 'circuits',
    title: 'Circuits',
    hint: '4',
    words: 'wiring wire cable conductors breakers conduit route home run drop',
  },
  {
    id: 'one-line',
    title: 'One-line',
    hint: '5',
    words: 'single line diagram schematic electrical drawing dxf svg',
  },
  {
    id: 'panel',
    title: 'Panel and labels',
    hint: '6',
    words: 'busbar board disconnect surge earthing labels placards subpanel tap',
  },
  {
    id: 'parts',
    title: 'Parts',
    hint: '7',
    words: 'bill of materials hardware list weight wire conduit',
  },
] as const;
