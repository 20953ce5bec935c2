/** A button that asks for a file and hands it over, or its words. */
import { useRef } from 'react';
import { Button } from './Button';

interface FilePickProps {
  label: string;
  accept: string;
  onFile: (file: File) => void;
}

export function FilePick({ label, accept, onFile }: FilePickProps) {
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
          if (file) onFile(file);
        }}
      />
    </>
  );
}

/** For files of text. */
export const withText = (take: (text: string, name: string) => void) => (file: File) =>
  void file.text().then((text) => take(text, file.name));
