/** A field of a document as people call it; one that has no name yet by its path. */
export function FieldName({ path, nameOf }: { path: string; nameOf: (path: string) => string }) {
  const name = nameOf(path);
  return name === path ? (
    <span className="figure whitespace-normal text-sm text-soft">{path}</span>
  ) : (
    <span className="font-semibold">{name}</span>
  );
}
