using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Quantities;
using Garten.Core.Tests.Identification;
using Xunit;

namespace Garten.Core.Tests.Quantities;

/// <summary>Whatever is typed as a range, a reading, a name or a key is read or refused at its place, and what was read is sound.</summary>
public sealed class AnyTextTests
{
    private static readonly string[] Bits =
    [
        "1",
        "2",
        "12",
        "100",
        "0",
        "0.5",
        "11,8",
        "1,200",
        "½",
        "3/8",
        "1 3/4",
        "4½",
        "-",
        "–",
        "—",
        "to",
        "(",
        ")",
        "[",
        "]",
        "±",
        "×",
        "x",
        "c.",
        "ca",
        "~",
        "<",
        ">",
        "≤",
        "≥",
        "up to",
        "more than",
        "at least",
        "less than",
        "or more",
        "mm",
        "cm",
        "m",
        "in",
        "ft",
        "°",
        "µm",
        "″",
        "'",
        "kg",
        "times as long as wide",
        "many",
        "five",
        "twelve",
        " ",
        " ",
        " ",
        ",",
        ";",
        ".",
        "/",
        "and",
        "or",
        "\t",
        "∞",
        "é",
        "\u00a0",
    ];

    private static string AnyText(Random random, int most = 9) =>
        string.Concat(
            Enumerable.Range(0, random.Next(0, most)).Select(_ => Bits[random.Next(Bits.Length)] + (random.Next(2) == 0 ? " " : ""))
        );

    [Fact]
    public void ARangeIsSoundOrItsFaultStandsAtItsPlace() => AnyFlora.Each(20_000, seed =>
        {
            var random = new Random(seed);
            var text = AnyText(random);
            var kind = (QuantityKind)random.Next(4);
            var read = RangeNotation.Read(text, kind, unit: random.Next(2) == 0 ? MeasureUnit.Millimetre : null);
            if (read.Problem is { } problem)
            {
                Assert.InRange(problem.At, 0, text.Length);
                Assert.NotEmpty(problem.Message);
                Assert.Empty(read.Ranges);
                return;
            }
            Assert.NotEmpty(read.Ranges);
            Assert.All(read.Ranges, r =>
            {
                Assert.Null(r.Contradiction());
                Assert.True(double.IsFinite(r.Low) && double.IsFinite(r.High));
                // What was read can be weighed.
                var distribution = new RangeDistribution(r);
                Assert.True(distribution.Likelihood(new Measured(r.Low + (r.High - r.Low) / 2, 1)) >= 0);
            });
        });

    [Fact]
    public void ARangeWithinASentenceEndsWithinIt() => AnyFlora.Each(10_000, seed =>
        {
            var random = new Random(seed);
            var text = "leaf " + AnyText(random) + " long";
            var at = random.Next(0, text.Length);
            var read = RangeNotation.ReadAt(text, at);
            Assert.InRange(read.End, 0, text.Length);
            if (read.Ranges.Count > 0)
                Assert.True(read.End > at);
        });

    [Fact]
    public void WhatIsWrittenOutAgainIsReadAsItWas() => AnyFlora.Each(4000, seed =>
        {
            var random = new Random(seed);
            var read = RangeNotation.Read(AnyText(random, 6), QuantityKind.Length, unit: MeasureUnit.Millimetre);
            if (read.Ranges.Count != 1 || read.Ranges[0].Low < 0.01)
                return;
            var range = read.Ranges[0];
            // In millimetres, of which three places are shown.
            var again = RangeNotation.Read(FloraProse.Notation(range, "mm"), QuantityKind.Length, unit: MeasureUnit.Millimetre);
            Assert.Null(again.Problem);
            var back = Assert.Single(again.Ranges);
            Assert.Equal(range.High, back.High, range.High * 1e-2 + 1e-3);
            Assert.Equal(range.Form == RangeForm.Exactly ? RangeForm.Between : range.Form, back.Form);
        });

    [Fact]
    public void ReadingsAreSoundOrTheirFaultsStandAtTheirPlaces() => AnyFlora.Each(20_000, seed =>
        {
            var random = new Random(seed);
            var text = AnyText(random, 12);
            var kind = (QuantityKind)random.Next(4);
            var line = ReadingText.Read(
                text,
                kind,
                random.Next(2) == 0 ? MeasureUnit.Millimetre : null,
                random.Next(4) == 0 ? new CalibratedObject("my thumb", 62, 3) : null
            );
            Assert.All(line.Problems, p => Assert.InRange(p.At, 0, text.Length));
            Assert.All(line.Readings, r =>
                Assert.True(double.IsFinite(r.Value) && r.Value >= 0 && r.Resolution >= 0 && r.Calibration >= 0)
            );
            if (!line.IsSound)
                return;
            Assert.NotNull(Sample.Of(line.Readings));
            if (kind == QuantityKind.Count)
                Assert.All(line.Readings, r => Assert.Equal(Math.Round(r.Value), r.Value));
        });

    [Fact]
    public void AnyNameIsTakenApartAndKeptWhole() => AnyFlora.Each(10_000, seed =>
        {
            var random = new Random(seed);
            string[] words =
            [
                "Vellorna",
                "alba",
                "subsp.",
                "var.",
                "×",
                "x",
                "Hask.",
                "(Hask.)",
                "ex",
                "&",
                "agg.",
                "s.l.",
                "sp.",
                "'Silver'",
                "f.",
                "nana",
                "white",
                "vellorn",
                ",",
                "(",
                ")",
                "-",
                "=",
                "1931",
                "V.",
                "d'Orm.",
                "*",
                "_",
                "sect.",
                "Key",
                "é",
            ];
            var text = string.Join(' ', Enumerable.Range(0, random.Next(1, 8)).Select(_ => words[random.Next(words.Length)]));
            var name = TaxonName.Parse(text);
            Assert.NotEmpty(name.Name);
            Assert.Equal(name.Name.Trim(), name.Name);
            // The name by itself is the same name again.
            if (name.IsScientific)
                Assert.Equal(name.Name, TaxonName.Parse(name.Name).Name);
        });

    [Fact]
    public void AnyTextIsReadAsAKeyOrSaysWhyNot() => AnyFlora.Each(3000, seed =>
        {
            var random = new Random(seed);
            string[] lines =
            [
                "Key to Vellorna",
                "1. Leaf grey ... Vellorna alba",
                "1. Leaf green ... 2",
                "2. Twigs winged",
                "2. Twigs round ... Vellorna nigra",
                "– Leaf long .... 3",
                "1' Fruit red",
                "a. Bark smooth",
                "b) Bark rough ... 12",
                "3(1). Sap milky ... Key B",
                "    indented  4. thorny",
                "",
                "Vellorna alba",
                "* a list",
                "> 1. quoted",
                "page 12",
                "1a1b1c",
                "99999. Leaf",
                "Key A",
                "(2) Leaf small",
                "+1. Leaf large",
                "See also: 3.",
            ];
            var reading = KeyTextReader.Read(
                string.Join('\n', Enumerable.Range(0, random.Next(0, 14)).Select(_ => lines[random.Next(lines.Length)]))
            );
            Assert.All(reading.Problems, p => Assert.True(p.Line >= 1 && p.Column >= 1 && p.Message.Length > 0));
            if (!reading.IsSound)
                return;
            foreach (var key in reading.Keys)
            {
                var version = new KeyVersion(KeyHash.Of(key), key);
                var walk = KeyWalk.Follow(new KeyShelf([version]), version.Hash, []);
                Assert.True(walk.Standing.Count > 0 || walk.Open.Count > 0);
            }
        });
}
