/** As much of a name as has room in a drawing, at so many pixels a letter. */
export const cut = (name: string, width: number, letter: number) => {
  const fits = Math.floor(width / letter);
  return name.length > fits ? `${name.slice(0, Math.max(1, fits - 1))}…` : name;
};
