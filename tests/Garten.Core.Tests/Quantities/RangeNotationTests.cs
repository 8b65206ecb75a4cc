using System.Globalization;
using Garten.Core.Quantities;
using Xunit;

namespace Garten.Core.Tests.Quantities;

/// <summary>The notations of floras, each with its reading made by hand in <c>notations.txt</c>.</summary>
public sealed class RangeNotationTests
{
    private static readonly string[][] Cases =
    [
        .. File.ReadAllLines(Path.Combine(AppContext.BaseDirectory, "Quantities", "notations.txt"))
            .Where(l => l.Length > 0 && l[0] != '#')
            .Select(l => l.Split(" | ")),
    ];

    public static TheoryData<string, string, string, string> Lines
    {
        get
        {
            var data = new TheoryData<string, string, string, string>();
            foreach (var c in Cases)
                data.Add(c[0].Trim(), c[1].Trim(), c[2].Trim(), c.Length > 3 ? c[3].Trim() : "between");
            return data;
        }
    }

    [Theory]
    [MemberData(nameof(Lines))]
    public void IsReadAsByHand(string kind, string notation, string expected, string form)
    {
        var read = RangeNotation.Read(notation, Enum.Parse<QuantityKind>(kind, ignoreCase: true));
        if (expected.StartsWith("error", StringComparison.Ordinal))
        {
            Assert.Empty(read.Ranges);
            Assert.NotNull(read.Problem);
            if (expected.Length > 5)
                Assert.Equal(int.Parse(expected[6..], CultureInfo.InvariantCulture), read.Problem.At);
            return;
        }
        Assert.True(read.Problem is null, read.Problem?.Message);
        Assert.Equal(expected, string.Join(" ; ", read.Ranges.Select(Show)));
        Assert.All(read.Ranges, r => Assert.Equal(form, r.Form.ToString(), ignoreCase: true));
    }

    [Fact]
    public void ThereAreSixtyFormsAndTwentyFiveMalformedOnes()
    {
        Assert.True(Cases.Count(c => !c[2].StartsWith("error", StringComparison.Ordinal)) >= 60);
        Assert.True(Cases.Count(c => c[2].StartsWith("error", StringComparison.Ordinal)) >= 25);
    }

    [Theory]
    [InlineData("Leaf 3–6 cm long", 5, "30 60", 11)]
    [InlineData("petioles 2–3 times as long as wide", 9, "2 3", 34)]
    [InlineData("stamens 5 in each flower", 8, "5 5", 9)]
    [InlineData("wings under 2 mm wide", 6, "0.5 2", 16)]
    [InlineData("teeth 20 or more on each side", 6, "20 80", 16)]
    [InlineData("capsule 6–9 mm, smooth", 8, "6 9", 14)]
    public void WithinASentenceItEndsWhereTheWordsGoOn(string text, int at, string expected, int end)
    {
        var read = RangeNotation.ReadAt(text, at);
        Assert.Equal(expected, Show(read.Ranges.Single()));
        Assert.Equal(end, read.End);
    }

    private static string Show(QuantityRange range)
    {
        static string Number(double? v) => v?.ToString("0.####", CultureInfo.InvariantCulture) ?? "-";
        return $"{Number(range.Low)} {Number(range.High)}{(range.LowExtreme is null && range.HighExtreme is null ? "" : $" {Number(range.LowExtreme)} {Number(range.HighExtreme)}")}";
    }
}
