using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;

namespace Garten.Formats;

/// <summary>
/// Writes tables as CSV after RFC 4180 that every reader reads alike and no spreadsheet takes for formulas: the one writer of all exports.
/// </summary>
public sealed class CsvTable : IAsyncDisposable
{
    private readonly CsvWriter _csv;

    /// <summary>Begins a table; the text stays open when it ends.</summary>
    public CsvTable(TextWriter text)
    {
        _csv = new CsvWriter(
            text,
            new CsvConfiguration(CultureInfo.InvariantCulture)
            {
                NewLine = "\r\n",
                // Whatever a reader may take for an end of cell or row, or trim, stands in quotes.
                ShouldQuote = args =>
                    args.Field is { Length: > 0 } field
                    && (field.AsSpan().IndexOfAny(",;\"\t\r\n|") >= 0 || IsPassedOver(field[0]) || char.IsWhiteSpace(field[^1])),
            },
            leaveOpen: true
        );
    }

    /// <summary>A text of a person: inert, see <see cref="Inert"/>.</summary>
    public void Text(string text) => _csv.WriteField(Inert(text));

    /// <summary>Several texts.</summary>
    public void Texts(params ReadOnlySpan<string> texts)
    {
        foreach (var text in texts)
            Text(text);
    }

    /// <summary>A number, as it is: a western longitude keeps its minus. An empty cell for null.</summary>
    public void Number(double? number) => _csv.WriteField(number?.ToString("R", CultureInfo.InvariantCulture) ?? "");

    /// <summary>A number with so many decimals at most; an empty cell for null.</summary>
    public void Number(double? number, string format) => _csv.WriteField(number?.ToString(format, CultureInfo.InvariantCulture) ?? "");

    /// <summary>A whole number; an empty cell for null.</summary>
    public void Whole(int? number) => _csv.WriteField(number?.ToString(CultureInfo.InvariantCulture) ?? "");

    /// <summary>Ends the row.</summary>
    public Task EndRowAsync() => _csv.NextRecordAsync();

    /// <inheritdoc />
    public async ValueTask DisposeAsync()
    {
        await _csv.FlushAsync();
        await _csv.DisposeAsync();
    }

    /// <summary>
    /// A text as a cell that no spreadsheet takes for a formula: what begins with <c>= + - @</c> or one of their wide forms, whatever white
    /// space
    /// or invisible signs stand before it, gets an apostrophe in front. A line break of any other kind than line feed, alone or behind a
    /// carriage return, is a line feed, since a carriage return alone
    /// begins a row in some readers; other control characters are spaces.
    /// </summary>
    public static string Inert(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (text.Length == 0)
            return text;
        var plain = new StringBuilder(text.Length + 1);
        for (var i = 0; i < text.Length; i++)
        {
            var c = text[i];
            // A pair is read as one by all.
            if (c == '\r' && i + 1 < text.Length && text[i + 1] == '\n')
            {
                plain.Append("\r\n");
                i++;
            }
            else if (c == '\r')
                plain.Append('\n');
            else if (c is '\u0085' or '\u2028' or '\u2029' or '\v' or '\f')
                plain.Append('\n');
            else
                plain.Append(c is not ('\n' or '\t') && char.IsControl(c) ? ' ' : c);
        }
        // A tab or a line break in front is what some spreadsheets begin a formula behind.
        var first = 0;
        while (first < plain.Length && IsPassedOver(plain[first]))
            first++;
        var isFormula =
            first < plain.Length && plain[first] is '=' or '+' or '-' or '@' or '＝' or '＋' or '－' or '＠' or '﹢' or '﹣' or '﹦' or '−';
        if (isFormula || text[0] is '\t' or '\r' or '\n')
            plain.Insert(0, '\'');
        return plain.ToString();
    }

    private static bool IsPassedOver(char c) =>
        char.IsWhiteSpace(c) || char.IsControl(c) || char.GetUnicodeCategory(c) is UnicodeCategory.Format or UnicodeCategory.NonSpacingMark;
}
