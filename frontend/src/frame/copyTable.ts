/** Figures as they are shown, all spaces alike: one between thousands, a real minus, a dash for none. */
const FIGURE = /^([+−-]?)(\d{1,3}(?: \d{3})*(?:\.\d+)?|\d+(?:\.\d+)?) ?(%?)$/;

/** A cell as a spreadsheet takes it: a figure as a number, a share as one, a dash as nothing. */
export function plainCell(shown: string): string {
  const text = shown.trim().replace(/\s+/g, " ");
  if (text === "–" || text === "—") return "";
  const figure = FIGURE.exec(text);
  if (!figure) return text;
  const [, sign = "", digits = "", percent = ""] = figure;
  const minus = sign === "−" || sign === "-" ? "-" : "";
  return minus + digits.replaceAll(" ", "") + percent;
}

/** The cells of a row, a cell over several columns with nothing beside it. */
function cellsOf(row: HTMLTableRowElement): string[] {
  return [...row.cells].flatMap((cell) => [
    plainCell(cell.innerText),
    ...Array<string>(Math.max(0, cell.colSpan - 1)).fill(""),
  ]);
}

/** The rows that are selected, as a spreadsheet takes them; nothing where it is no table. */
export function selectedTable(selection: Selection | null): string[][] {
  if (!selection || selection.isCollapsed || selection.rangeCount === 0) return [];
  const range = selection.getRangeAt(0);
  const beside = range.cloneContents();
  for (const part of beside.querySelectorAll("table, thead, tbody, tr, td, th")) part.remove();
  // Where other words are selected as well, all of it is copied as it stands.
  if (beside.textContent.trim() !== "") return [];
  const rows = [...document.querySelectorAll("table tr")].filter(
    (row): row is HTMLTableRowElement =>
      row instanceof HTMLTableRowElement && range.intersectsNode(row),
  );
  // Words within one cell are words.
  return rows.length > 1 ? rows.map(cellsOf).filter((cells) => cells.some(Boolean)) : [];
}

/** What is copied of a table arrives in a spreadsheet as numbers, cell by cell. */
export function copyAsNumbers(event: ClipboardEvent): void {
  const target = event.target;
  if (target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement) return;
  const rows = selectedTable(document.getSelection());
  if (rows.length === 0 || !event.clipboardData) return;
  event.clipboardData.setData("text/plain", rows.map((cells) => cells.join("\t")).join("\n"));
  event.preventDefault();
}
