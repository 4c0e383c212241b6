/** Letters of 2.8 mm are about 1.75 mm wide each. */
const WIDE = 1.75 / 2.8;

/** Words as far as there is room for them, mm. @param height of capitals, mm */
export const shortened = (words: string, room: number, height = 2.8): string => {
  const most = Math.max(1, Math.floor(room / (WIDE * height)));
  return words.length > most ? `${words.slice(0, most - 1)}…` : words;
};

/** Words on as many lines as there are at most; what is too long for the last is cut off there. */
export function onLines(words: string, room: number, most: number, height = 2.8): string[] {
  const letters = Math.max(1, Math.floor(room / (WIDE * height)));
  const lines: string[] = [];
  for (const paragraph of words.split('\n')) {
    let line = '';
    for (const word of paragraph.split(' ')) {
      const longer = line ? `${line} ${word}` : word;
      if (longer.length <= letters || !line) line = longer;
      else {
        lines.push(line);
        line = word;
      }
    }
    lines.push(line);
  }
  const last = lines
    .slice(most - 1)
    .join(' ')
    .trim();
  return [...lines.slice(0, most - 1), last].map((line) => shortened(line, room, height));
}
