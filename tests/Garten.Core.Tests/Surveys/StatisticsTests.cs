using System.Globalization;
using System.Reflection;
using System.Text.Json;
using System.Text.Json.Nodes;
using CsCheck;
using Garten.Core.Contracts;
using Garten.Core.Surveys.Figures;
using Xunit;

namespace Garten.Core.Tests.Surveys;

/// <summary>Figures of surveys: equal to what R's vegan 2.6 gives for made-up tables (<c>Communities</c>), worked by hand, and as
/// properties.</summary>
public sealed class StatisticsTests
{
    private const double Exactness = 1e-9;

    private sealed record Gold(SampleKind Kind, List<SampleValue> Values, List<(string Figure, string Of, double? Value)> Figures);

    private static Gold Read(string name)
    {
        var lines = File.ReadAllLines(Path.Combine(AppContext.BaseDirectory, "Surveys", "Communities", name + ".txt"));
        var gold = new Gold(Enum.Parse<SampleKind>(lines[0].Split('\t')[1], ignoreCase: true), [], []);
        foreach (var parts in lines.Skip(1).Select(l => l.Split('\t')))
        {
            if (parts[0] == "row")
                gold.Values.AddRange(
                    parts
                        .Skip(2)
                        .Select((v, t) => new SampleValue(parts[1], $"taxon {t + 1}", double.Parse(v, CultureInfo.InvariantCulture)))
                );
            else
                gold.Figures.Add((parts[0], parts[1], parts[2].Length == 0 ? null : double.Parse(parts[2], CultureInfo.InvariantCulture)));
        }
        return gold;
    }

    private static double? Figure(object of, string name) =>
        Convert.ToDouble(
            of.GetType().GetProperty(name, BindingFlags.IgnoreCase | BindingFlags.Public | BindingFlags.Instance)!.GetValue(of)
                ?? double.NaN,
            CultureInfo.InvariantCulture
        )
            is var value
        && double.IsNaN(value)
            ? null
            : value;

    private static double? Found(StatisticsResponse answer, string figure, string of) =>
        figure switch
        {
            "rarefiedTo" => answer.RarefiedTo,
            "accumulation" => answer.Accumulation[int.Parse(of, CultureInfo.InvariantCulture) - 1].Richness,
            "sd" => answer.Accumulation[int.Parse(of, CultureInfo.InvariantCulture) - 1].Sd,
            "sorensen" or "jaccard" or "brayCurtis" => Figure(
                answer.Pairs.Single(p => $"P{of.Replace(" ", " P", StringComparison.Ordinal)}" == $"{p.A} {p.B}"),
                figure
            ),
            _ => Figure(of == "pooled" ? answer.Pooled : answer.Samples.Single(s => s.Sample == of), figure),
        };

    [Theory]
    [InlineData("meadow")]
    [InlineData("odd-plots")]
    [InlineData("cover")]
    [InlineData("presence")]
    [InlineData("no-pairs")]
    public void FiguresEqualTheReference(string name)
    {
        var gold = Read(name);
        var answer = new StatisticsRequest(gold.Kind, gold.Values).WorkOut();
        Assert.All(gold.Figures, g =>
        {
            var found = Found(answer, g.Figure, g.Of);
            // Of a deviation of 0 the reference gives the root of its own rounding.
            var isRounding = g is { Figure: "sd", Value: < 1e-7 } && found < 1e-7;
            Assert.True(
                isRounding
                    || (
                        g.Value is { } value
                            ? found is { } f && Math.Abs(f - value) <= Exactness * Math.Max(1, Math.Abs(value))
                            : found is null
                    ),
                $"{g.Figure} of {g.Of}: {found} for {g.Value}"
            );
        });
    }

    [Theory]
    [InlineData("meadow")]
    [InlineData("cover")]
    public void ArrangementsEqualTheReference(string name)
    {
        var gold = Read(name);
        var lines = File.ReadAllLines(Path.Combine(AppContext.BaseDirectory, "Surveys", "Communities", name + "-arranged.txt"));
        foreach (var of in lines.Skip(1).Select(l => l.Split('\t')).GroupBy(p => p[0]))
        {
            var answer = new ArrangementRequest(
                gold.Kind,
                gold.Values,
                Enum.Parse<SampleDistance>(of.Key, ignoreCase: true),
                Axes: 3
            ).WorkOut();
            Assert.All(of, line =>
            {
                var words = line[1].Split(' ');
                int At(int word) => int.Parse(words[word], CultureInfo.InvariantCulture) - 1;
                var found = words[0] switch
                {
                    "eigenvalue" => answer.Ordination.Axes[At(1)].Eigenvalue,
                    "point" => answer.Ordination.Points[At(1)][At(2)],
                    "negative" => answer.Ordination.Negative,
                    "height" => answer.Clustering.Merges[At(1)].Height,
                    _ => JoinedAt(answer.Clustering, answer.Samples.Count, At(1), At(2)),
                };
                Assert.Equal(double.Parse(line[2], CultureInfo.InvariantCulture), found, Exactness);
            });
        }
    }

    private static double JoinedAt(Clustering clustering, int samples, int one, int other)
    {
        var cluster = Enumerable.Range(0, samples).ToArray();
        for (var m = 0; m < clustering.Merges.Count; m++)
        {
            var merge = clustering.Merges[m];
            for (var s = 0; s < samples; s++)
            {
                if (cluster[s] == merge.One || cluster[s] == merge.Other)
                    cluster[s] = samples + m;
            }
            if (cluster[one] == cluster[other])
                return merge.Height;
        }
        return double.NaN;
    }

    [Fact]
    public void WhateverIsArrangedLiesAsFarApartAsItIs() =>
        AnyTable.Sample(rows =>
        {
            var samples = rows.Where(r => r.Sum() > 0).ToArray();
            if (samples.Length < 2)
                return;
            var request = new ArrangementRequest(
                SampleKind.Individuals,
                [.. samples.SelectMany((r, s) => r.Select((v, t) => new SampleValue($"S{s}", $"t{t}", v)))],
                Axes: 10
            );
            var answer = request.WorkOut();
            // Where no eigenvalue is below 0 all distances come back.
            if (answer.Ordination.Negative < 1e-12)
            {
                for (var i = 1; i < samples.Length; i++)
                {
                    var lies = Math.Sqrt(answer.Ordination.Points[0].Zip(answer.Ordination.Points[i], (a, b) => (a - b) * (a - b)).Sum());
                    Assert.Equal(Likeness.BrayCurtis(samples[0], samples[i])!.Value, lies, 1e-6);
                }
            }
            Assert.Equal(Enumerable.Range(0, samples.Length), answer.Clustering.Order.Order());
            Assert.Equal(samples.Length - 1, answer.Clustering.Merges.Count);
            Assert.True(
                answer.Clustering.Merges.Zip(answer.Clustering.Merges.Skip(1)).All(m => m.Second.Height >= m.First.Height - Exactness)
            );
            Assert.DoesNotContain("NaN", JsonSerializer.Serialize(answer, CoreJson.Default.Arrangement), StringComparison.Ordinal);
        });

    [Fact]
    public void WhatCantBeArrangedIsSaid()
    {
        static string Code(params SampleValue[] values) =>
            Assert.Throws<RequestException>(() => new ArrangementRequest(SampleKind.Cover, values).WorkOut()).Code;
        Assert.Equal("statistics.empty-sample", Code(new("A", "x", 1), new("B", "x", 0)));
        // All alike lie at one point, on no axis.
        var alike = new ArrangementRequest(SampleKind.Cover, [new("A", "x", 2), new("B", "x", 2), new("C", "x", 2)]).WorkOut();
        Assert.Empty(alike.Ordination.Axes);
        Assert.Equal([0, 0], alike.Clustering.Merges.Select(m => m.Height));
        Assert.Empty(new ArrangementRequest(SampleKind.Cover, [new("A", "x", 2)]).WorkOut().Clustering.Merges);
    }

    private static CommunityTableAnswer Pasted(
        string text,
        TableLayout layout = TableLayout.SamplesInRows,
        SampleKind kind = SampleKind.Individuals
    ) => new CommunityTableRequest(text, layout, kind).WorkOut();

    [Theory]
    [InlineData("\tx\ty\nA\t3\t\nB\t1\t4\n", TableLayout.SamplesInRows)]
    [InlineData("x;y\nA;3;-\nB;1;4", TableLayout.SamplesInRows)]
    [InlineData("taxon,A,B\r\nx,3,1\r\n\"y\",0,4\r\n", TableLayout.TaxaInRows)]
    [InlineData("plot\ttaxon\tcount\nA\tx\t3\nB\tx\t1\nB\ty\t4", TableLayout.Finds)]
    public void ATableIsReadHoweverItIsLaidOut(string text, TableLayout layout)
    {
        var figures = Pasted(text, layout).Figures!;
        Assert.Equal([("A", 3L, 1), ("B", 5L, 2)], figures.Samples.Select(s => (s.Sample, s.Individuals!.Value, s.Richness)));
        Assert.Equal(2, figures.Pooled.Richness);
    }

    [Fact]
    public void CellsThatCantBeReadAreNamedByLineAndCell()
    {
        static (int, int) At(CommunityTableAnswer answer)
        {
            Assert.Null(answer.Figures);
            return (answer.Problems[0].Line, answer.Problems[0].Column);
        }
        Assert.Equal((3, 2), At(Pasted("\tx\ty\nA\t3\t1\nB\tmany\t4")));
        Assert.Equal((2, 3), At(Pasted("\tx\ty\nA\t3\t-2")));
        Assert.Equal((2, 2), At(Pasted("\tx\ty\nA\t0.5\t2")));
        Assert.Equal((2, 2), At(Pasted("\tx\ty\nA\t+\t2")));
        Assert.Equal((3, 1), At(Pasted("\tx\ty\nA\t1\t2\nA\t1\t2")));
        Assert.Equal((2, 4), At(Pasted("\tx\ty\nA\t1\t2\t3\t4")));
        Assert.Equal((1, 1), At(Pasted("")));
        Assert.Equal((1, 1), At(Pasted("one cell\nanother")));
        Assert.Equal((1, 1), At(Pasted("\tx\ty\n\n")));
        Assert.NotNull(Pasted("x;y\nA;0,5;12,5", kind: SampleKind.Cover).Figures);
        Assert.NotNull(Pasted("\tx\ty\nA\t+\tx", kind: SampleKind.Incidence).Figures);
    }

    [Fact]
    public void CoverageByHand()
    {
        // Ten individuals; three taxa of one, one of two: 1 − 3/10 · 27/(27+2).
        Assert.Equal(1 - 0.3 * 27 / 29, IndividualEstimators.Coverage([1, 1, 1, 2, 5])!.Value, 12);
        // Without a pair: 1 − 3/10 · 18/(18+2).
        Assert.Equal(1 - 0.3 * 18 / 20, IndividualEstimators.Coverage([1, 1, 1, 7])!.Value, 12);
        Assert.Equal(1, IndividualEstimators.Coverage([4, 6]));
        Assert.Null(IndividualEstimators.Coverage([0, 0]));
    }

    [Fact]
    public void WhatIsntDefinedIsNullAndSaysWhy()
    {
        SampleValue[] values = [new("A", "x", 40.5), new("A", "y", 3), new("B", "x", 0)];
        var cover = new StatisticsRequest(SampleKind.Cover, values).WorkOut();
        var (a, b) = (cover.Samples[0], cover.Samples[1]);
        Assert.Null(a.Chao1);
        Assert.Null(a.Ace);
        Assert.Null(a.Coverage);
        Assert.Null(a.Rarefied);
        Assert.NotNull(a.Shannon);
        Assert.Contains(cover.Methods, m => m.Figure == "chao1" && m.Refused.Contains("cover isn't counted", StringComparison.Ordinal));
        // Nothing was found there: that is a figure; its diversity isn't.
        Assert.Equal(0, b.Richness);
        Assert.Null(b.Shannon);
        Assert.Null(b.Simpson);
        Assert.Null(b.Pielou);
        Assert.Equal(0, cover.Pairs[0].Sorensen);
        var none = new StatisticsRequest(SampleKind.Individuals, [new("A", "x", 0), new("B", "x", 0)]).WorkOut();
        Assert.Null(none.Pairs[0].BrayCurtis);
        Assert.Null(none.Pooled.Chao2);
        Assert.Null(none.RarefiedTo);
        Assert.Null(new StatisticsRequest(SampleKind.Individuals, [new("A", "x", 3)], RarefyTo: 4).WorkOut().Samples[0].Rarefied);
        var presence = new StatisticsRequest(SampleKind.Incidence, [new("A", "x", 1), new("A", "y", 1)]).WorkOut();
        Assert.Null(presence.Samples[0].Shannon);
        Assert.Equal([2, null, null], presence.Samples[0].Hill);
    }

    [Fact]
    public void OddValuesAreRefusedAtTheirPlace()
    {
        static string Field(SampleKind kind, long? to, params SampleValue[] values) =>
            Assert.Throws<RequestException>(() => new StatisticsRequest(kind, values, to).WorkOut()).Field;
        Assert.Equal("samples", Field(SampleKind.Cover, null));
        Assert.Equal("samples[1].value", Field(SampleKind.Individuals, null, new("A", "x", 1), new("A", "y", 0.5)));
        Assert.Equal("samples[0].value", Field(SampleKind.Individuals, null, new SampleValue("A", "x", -1)));
        Assert.Equal("samples[0].value", Field(SampleKind.Cover, null, new SampleValue("A", "x", double.NaN)));
        Assert.Equal("samples[0].value", Field(SampleKind.Cover, null, new SampleValue("A", "x", 2_000_000)));
        Assert.Equal("samples[0].value", Field(SampleKind.Incidence, null, new SampleValue("A", "x", 2)));
        Assert.Equal("samples[1].taxon", Field(SampleKind.Cover, null, new("A", "x", 1), new("A", "x", 2)));
        Assert.Equal("samples[0].sample", Field(SampleKind.Cover, null, new SampleValue(" ", "x", 1)));
        Assert.Equal("samples[0].taxon", Field(SampleKind.Cover, null, new SampleValue("A", "", 1)));
        Assert.Equal(
            "samples",
            Field(SampleKind.Individuals, null, [.. Enumerable.Range(0, 6).Select(i => new SampleValue("A", $"x{i}", 1_000_000))])
        );
        Assert.Equal("rarefyTo", Field(SampleKind.Individuals, 0, new SampleValue("A", "x", 1)));
    }

    private static readonly Gen<double[][]> AnyTable =
        from samples in Gen.Int[1, 8]
        from taxa in Gen.Int[1, 12]
        from rows in Gen.Int[0, 15].Select(v => (double)Math.Max(v - 8, 0)).Array[taxa].Array[samples]
        select rows;

    private static StatisticsResponse Of(double[][] rows, int[]? order = null) =>
        new StatisticsRequest(
            SampleKind.Individuals,
            [
                .. (order ?? [.. Enumerable.Range(0, rows.Length)]).SelectMany(s =>
                    rows[s].Select((v, t) => new SampleValue($"S{s}", $"t{t}", v))
                ),
            ]
        ).WorkOut();

    [Fact]
    public void WhateverIsCountedNoFigureIsntANumber() =>
        AnyTable.Sample(rows =>
        {
            var text = JsonSerializer.Serialize(Of(rows), CoreJson.Default.StatisticsResponse);
            Assert.DoesNotContain("NaN", text, StringComparison.Ordinal);
            Assert.DoesNotContain("Infinity", text, StringComparison.Ordinal);
            var pooled = JsonNode.Parse(text)!["pooled"]!;
            // Nobody expects fewer than were seen, and the curve ends at them.
            foreach (var estimator in new[] { "chao1", "chao2", "jackknife1", "bootstrap" })
                Assert.True(pooled[estimator] is not { } e || (double)e >= (double)pooled["richness"]! - Exactness);
            var curve = JsonNode.Parse(text)!["accumulation"]!.AsArray();
            Assert.Equal((double)pooled["richness"]!, (double)curve[^1]!["richness"]!, 9);
            Assert.Equal(0, (double)curve[^1]!["sd"]!, 9);
        });

    private static readonly double[] Odd = [0, 5e-324, 1e-308, 1e-150, 1e-12, 0.5, 52, 1_000_000];

    // As small and as large as numbers are: none of it comes out as no number.
    [Fact]
    public void OddMeasuresGiveNumbersOrNothing() =>
        (
            from samples in Gen.Int[1, 6]
            from taxa in Gen.Int[1, 6]
            from rows in Gen.Int[0, Odd.Length - 1].Select(i => Odd[i]).Array[taxa].Array[samples]
            select rows
        ).Sample(rows =>
        {
            SampleValue[] values = [.. rows.SelectMany((r, s) => r.Select((v, t) => new SampleValue($"S{s}", $"t{t}", v)))];
            var figures = new StatisticsRequest(SampleKind.Cover, values).WorkOut();
            Assert.DoesNotContain("NaN", JsonSerializer.Serialize(figures, CoreJson.Default.StatisticsResponse), StringComparison.Ordinal);
            if (figures.Samples.All(s => s.Richness > 0))
                foreach (var distance in Enum.GetValues<SampleDistance>())
                    JsonSerializer.Serialize(
                        new ArrangementRequest(SampleKind.Cover, values, distance, 3).WorkOut(),
                        CoreJson.Default.Arrangement
                    );
        });

    [Fact]
    public void TheOrderOfSamplesDoesntMatter() =>
        (from rows in AnyTable from order in Gen.Shuffle(Enumerable.Range(0, rows.Length).ToArray()) select (rows, order)).Sample(
            (rows, order) =>
            {
                var (one, other) = (Of(rows), Of(rows, order));
                foreach (var property in typeof(PooledFigures).GetProperties().Where(p => p.PropertyType == typeof(double?)))
                {
                    var (a, b) = ((double?)property.GetValue(one.Pooled), (double?)property.GetValue(other.Pooled));
                    Assert.True(a is null == b is null && (a is null || Math.Abs(a.Value - b!.Value) < 1e-7), property.Name);
                }
                Assert.Equal(
                    one.Accumulation.Select(p => Math.Round(p.Richness, 9)),
                    other.Accumulation.Select(p => Math.Round(p.Richness, 9))
                );
            }
        );

    [Fact]
    public void AsManyAsAreThereIsRichnessAndOneIsOne() =>
        AnyTable.Sample(rows =>
        {
            foreach (var row in rows.Where(r => r.Sum() > 0))
            {
                Assert.Equal(Diversity.Richness(row), IndividualEstimators.Rarefied(row, (long)row.Sum()).Value!.Value, 9);
                Assert.Equal(1, IndividualEstimators.Rarefied(row, 1).Value!.Value, 9);
            }
        });
}
