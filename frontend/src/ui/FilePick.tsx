/** A button that asks for a text file and hands over its words. */
import { useRef } from 'react';
import { Button } from './Button';

interface FilePickProps {
  label: string;
  accept: string;
  onText: (text: string, name: string) => void;
}

export function FilePick({ label, accept, onText }: FilePickProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button onClick={() => input.current?.click()}>{label}</Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        aria-label={`${label}, file`}
        className="sr-only"
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) void file.text().then((text) => onText(text, file.name));
        }}
      />
    </>
  );
}
