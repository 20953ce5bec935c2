export const VIEWS = [
  { id: 'rails', title: 'Rails', hint: '1', words: 'mounts feet spans rafters racking' },
  { id: 'cut', title: 'Cut list', hint: '2', words: 'sticks saw splices offcuts stock' },
  { id: 'chalk', title: 'Chalk lines', hint: '3', words: 'crew sheet tape layout marks' },
  { id: 'parts', title: 'Parts', hint: '4', words: 'bill of materials hardware list weight' },
] as const;
