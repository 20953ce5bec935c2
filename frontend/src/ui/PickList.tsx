/** A short list of named things, one of which is looked at. */

export interface PickItem {
  id: string;
  name: string;
}

interface PickListProps {
  items: PickItem[];
  chosenId: string;
  onChoose: (id: string) => void;
}

export function PickList({ items, chosenId, onChoose }: PickListProps) {
  return (
    <ul className="w-[120px] shrink-0 overflow-y-auto">
      {items.map(({ id, name }) => (
        <li key={id}>
          <button
            type="button"
            aria-pressed={id === chosenId}
            onClick={() => onChoose(id)}
            className={`min-h-[26px] w-full truncate rounded-sm px-2 text-left text-sm ${id === chosenId ? 'bg-copper-wash font-medium' : 'hover:bg-paper'}`}
          >
            {name}
          </button>
        </li>
      ))}
    </ul>
  );
}
