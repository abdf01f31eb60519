/** A CSV file for download; spreadsheets need the mark in front to read it as UTF-8. */
export const csvFile = (text: string, name: string): Response =>
  new Response(`\uFEFF${text}`, {
    headers: {
      "Content-Type": "text/csv; charset=utf-8",
      "Content-Disposition": `attachment; filename="${name}"`,
    },
  });
