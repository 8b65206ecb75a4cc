using System.Text;
using Xunit;

namespace Garten.Formats.Tests;

public sealed class CalendarWriterTests
{
    private static readonly DateTimeOffset Now = new(2026, 11, 25, 13, 0, 5, TimeSpan.FromHours(1));

    [Fact]
    public void ADayIsWrittenAsRfc5545Wants() =>
        Assert.Equal(
            "BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Garten//Visits//EN\r\nBEGIN:VEVENT\r\nUID:a@garten\r\nDTSTAMP:20261125T120005Z\r\nDTSTART;VALUE=DATE:20261231\r\nDTEND;VALUE=DATE:20270101\r\n"
                + "SUMMARY:Twigs\\, bare\\; buds\r\nLOCATION:Harrow\r\nDESCRIPTION:one\\ntwo \\\\ three\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n",
            CalendarWriter.Write(
                [new CalendarDay("a@garten", new DateOnly(2026, 12, 31), "Twigs, bare; buds", "Harrow", "one\r\ntwo \\ three")],
                Now
            )
        );

    [Fact]
    public void LongLinesAreFoldedBetweenCharacters()
    {
        var description = string.Concat(Enumerable.Repeat("Blätter – ", 40));
        var text = CalendarWriter.Write([new CalendarDay("a", new DateOnly(2026, 12, 31), "s", "l", description)], Now);
        Assert.All(text.Split("\r\n"), line => Assert.True(Encoding.UTF8.GetByteCount(line) <= 75));
        Assert.Contains("DESCRIPTION:" + description, text.Replace("\r\n ", "", StringComparison.Ordinal), StringComparison.Ordinal);
    }
}
