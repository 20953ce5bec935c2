/** What a year can be weighed by, in the server's words and in a person's. */
export const WEIGHED = [
  { value: 'year', words: 'the year' },
  { value: 'winter', words: 'the winter half' },
  { value: 'summer', words: 'the summer half' },
  { value: 'mornings', words: 'mornings' },
  { value: 'afternoons', words: 'afternoons' },
  { value: '16-21', words: '16 to 21 h' },
] as const;
