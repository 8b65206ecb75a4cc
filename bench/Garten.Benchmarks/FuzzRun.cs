using System.Globalization;
using Garten.Testing;

namespace Garten.Benchmarks;

/// <summary>Sends a running <c>./garten demo</c> what no sound client sends, and says what became of it; see docs/reliability.md.</summary>
internal static class FuzzRun
{
    private const int UsualRequests = 70_000;
    private const int UsualUploads = 7_000;

    public static async Task RunAsync(TextWriter output, string[] arguments)
    {
        var address = new Uri(arguments.Length > 0 ? arguments[0] : "http://127.0.0.1:5080");
        if (!address.IsLoopback)
            throw new ArgumentException("Only a server on this machine is sent such things.", nameof(arguments));
        int Number(int at, int usual) => arguments.Length > at ? int.Parse(arguments[at], CultureInfo.InvariantCulture) : usual;
        var (requests, uploads, seed) = (Number(1, UsualRequests), Number(2, UsualUploads), Number(3, 14));
        using var client = new HttpClient { BaseAddress = address, Timeout = TimeSpan.FromMinutes(2) };
        var files = await FilesAsync(client);
        var report = await new Fuzz(client, seed, files).RunAsync(requests, uploads, TimeSpan.FromHours(6), CancellationToken.None);
        await output.WriteLineAsync(
            string.Create(
                CultureInfo.InvariantCulture,
                $"{report.Requests} requests answered, {report.Uploads} of them uploads; the slowest took {report.SlowestSeconds:0.00} s: {report.Slowest}"
            )
        );
        await output.WriteLineAsync(string.Join(", ", report.Statuses.Select(s => $"{s.Key}: {s.Value}")));
        if (Memory(address.Port) is { } most)
            await output.WriteLineAsync(string.Create(CultureInfo.InvariantCulture, $"the server's memory at its highest: {most:0} MB"));
        await output.WriteLineAsync($"{report.Faults.Count} faults");
        foreach (var fault in report.Faults)
            await output.WriteLineAsync("  " + fault);
    }

    // The demo's own tables, the flora as the server gives it out, and its keys.
    private static async Task<List<(string, byte[])>> FilesAsync(HttpClient client)
    {
        var all = Directory
            .GetFiles(Path.Combine(Repository.Root, "demo"), "*.*", SearchOption.AllDirectories)
            .Where(f => Path.GetExtension(f) is ".csv" or ".xlsx" or ".txt")
            .Select(f => (Path.GetFileName(f), File.ReadAllBytes(f)))
            .ToList();
        all.Add(("torvane.xml", await client.GetByteArrayAsync(new Uri("/api/v1/floras/torvane/sdd", UriKind.Relative))));
        all.Add(("small.xlsx", Workbook()));
        return all;
    }

    private static byte[] Workbook()
    {
        using var stream = new MemoryStream();
        using (
            var book = DocumentFormat.OpenXml.Packaging.SpreadsheetDocument.Create(
                stream,
                DocumentFormat.OpenXml.SpreadsheetDocumentType.Workbook
            )
        )
        {
            var part = book.AddWorkbookPart();
            var sheet = part.AddNewPart<DocumentFormat.OpenXml.Packaging.WorksheetPart>("r1");
            string[][] rows =
            [
                ["taxon", "leaf length (mm)", "petals", "margin"],
                ["Alvena rara", "20-40", "5", "toothed"],
                ["Alvena vulgaris", "50-90", "4", "entire"],
                ["Brontia alta", "100-200", "-", "toothed or entire"],
            ];
            var data = new DocumentFormat.OpenXml.Spreadsheet.SheetData();
            foreach (var row in rows)
                data.Append(
                    new DocumentFormat.OpenXml.Spreadsheet.Row(
                        row.Select(c => new DocumentFormat.OpenXml.Spreadsheet.Cell(
                            new DocumentFormat.OpenXml.Spreadsheet.InlineString(new DocumentFormat.OpenXml.Spreadsheet.Text(c))
                        )
                        {
                            DataType = DocumentFormat.OpenXml.Spreadsheet.CellValues.InlineString,
                        })
                    )
                );
            sheet.Worksheet = new DocumentFormat.OpenXml.Spreadsheet.Worksheet(data);
            part.Workbook = new DocumentFormat.OpenXml.Spreadsheet.Workbook(
                new DocumentFormat.OpenXml.Spreadsheet.Sheets(
                    new DocumentFormat.OpenXml.Spreadsheet.Sheet
                    {
                        Id = "r1",
                        SheetId = 1,
                        Name = "a",
                    }
                )
            );
        }
        return stream.ToArray();
    }

    // Of the server on this machine, from its first moment on; null where it can't be told.
    private static double? Memory(int port)
    {
        if (!Directory.Exists("/proc"))
            return null;
        foreach (
            var process in Directory
                .GetDirectories("/proc")
                .Where(d => int.TryParse(Path.GetFileName(d), CultureInfo.InvariantCulture, out _))
        )
        {
            try
            {
                string Said(string of) => File.ReadAllText(Path.Combine(process, of));
                if (
                    !Said("cmdline").Contains("Garten.Server", StringComparison.Ordinal)
                    || !(Said("cmdline") + Said("environ")).Contains($":{port}", StringComparison.Ordinal)
                )
                    continue;
                var line = File.ReadLines(Path.Combine(process, "status"))
                    .FirstOrDefault(l => l.StartsWith("VmHWM", StringComparison.Ordinal));
                if (line is not null)
                    return double.Parse(new string([.. line.Where(char.IsDigit)]), CultureInfo.InvariantCulture) / 1024;
            }
            catch (Exception gone) when (gone is IOException or UnauthorizedAccessException)
            {
                // Not ours, or over already.
            }
        }
        return null;
    }
}
