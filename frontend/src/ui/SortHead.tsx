/** The head of a column of figures that sorts its table when it is pressed. */

interface SortHeadProps {
  title: string;
  sorted: 'ascending' | 'descending' | 'none';
  onSort: () => void;
}

const ARROW = { ascending: ' ↑', descending: ' ↓', none: '' };

export function SortHead({ title, sorted, onSort }: SortHeadProps) {
  return (
    <th scope="col" aria-sort={sorted} className="pl-2.5 text-right font-normal">
      <button
        type="button"
        className={`min-h-6 text-right hover:underline ${sorted === 'none' ? '' : 'font-semibold text-ink'}`}
        onClick={onSort}
      >
        {title}
        {ARROW[sorted]}
      </button>
    </th>
  );
}
