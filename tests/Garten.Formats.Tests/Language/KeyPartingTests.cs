using Garten.Core.Characters;
using Garten.Core.Evidence;
using Garten.Core.Floras;
using Garten.Core.Keys;
using Garten.Core.Language;
using Garten.Core.Quantities;
using Xunit;

namespace Garten.Formats.Tests.Language;

/// <summary>Where keys part some names, and what taught words change before they are taught.</summary>
public sealed class KeyPartingTests
{
    private const string First = """
        Key to the shrubs

        1. Leaves opposite ... Alba prima
        1. Leaves alternate ... 2
        2. Petals 5, white; leaves hoary beneath ... Alba secunda
        2. Petals 4, yellow ... Alba tertia
        """;

    private const string Second = """
        Key by flowers

        1. Petals 4; leaves hoary ... Alba secunda or Alba prima
        1. Petals 5 ... Alba tertia
        """;

    private static Taxon Taxon(string id, string name) => new(id, name, "Hask.", "species", "alba", "Albaceae", "", [], "");

    private static BenchShelf Shelf(params TaughtTerm[] taught)
    {
        var taxa = new[] { Taxon("prima", "Alba prima"), Taxon("secunda", "Alba secunda"), Taxon("tertia", "Alba tertia") };
        var versions = new[] { First, Second }.Select(t => KeyTextReader.Read(t).Keys[0]).Select(k => new KeyVersion(KeyHash.Of(k), k));
        TaxonDescription[] described =
        [
            new("prima", [new("petal.number", [], new QuantityRange(QuantityKind.Count, RangeForm.Between, 5, 5))]),
            new("secunda", [new("petal.number", [], new QuantityRange(QuantityKind.Count, RangeForm.Between, 5, 5))]),
        ];
        var botany = ShippedVocabulary.Botany;
        var table = new CharacterTable([botany.Compose("petal.number")!], described, []) { Botany = botany };
        return new BenchShelf(new KeyShelf(versions, taxa), table, taxa, taught);
    }

    [Fact]
    public void TheCoupletOfEachKeyThatPartsThemIsShown()
    {
        var parting = KeyParting.Of(Shelf(), ["Alba secunda", "Alba tertia"], []);
        Assert.Equal([("Key to the shrubs", "2"), ("Key by flowers", "1")], parting.Couplets.Select(c => (c.Title, c.Couplet)));
        Assert.Equal(
            [
                ["Alba secunda"],
                ["Alba tertia"],
            ],
            parting.Couplets[0].Leads.Select(l => l.Taxa)
        );
        Assert.Contains(parting.Couplets[0].Leads[0].Claims, c => c.InWords == "number of petals: 5" && c.Described[0].InWords == "5");
    }

    [Fact]
    public void WhatCantBeRightTogetherIsSaid()
    {
        var all = KeyParting.Of(Shelf(), ["Alba secunda", "Alba tertia"], []).Contradictions;
        // One key against the other, and the second key against the description.
        Assert.Contains(all, c =>
            c is { Taxon: "Alba secunda", First: "Key to the shrubs", Second: "Key by flowers", FirstSays: "5", SecondSays: "4" }
        );
        Assert.Contains(all, c => c is { Taxon: "Alba secunda", First: "Key by flowers", Second: "", SecondSays: "5" });
        Assert.Contains(all, c => c is { Taxon: "Alba tertia", Second: "Key by flowers" });
        Assert.DoesNotContain(all, c => c.Taxon == "Alba prima");
    }

    // On one of two ways it is said, on the other one it isn't.
    [Fact]
    public void WhatIsSaidOnSomeWaysAloneContradictsNothing()
    {
        const string text = """
            Key by two ways

            1. Petals 4 ... 2
            1. Leaves alternate ... 2
            2. Stems hairy ... Alba prima
            2. Stems glabrous ... Alba secunda
            """;
        var shelf = Shelf();
        var key = KeyTextReader.Read(text).Keys[0];
        var more = new BenchShelf(new KeyShelf([new(KeyHash.Of(key), key)], shelf.Taxa), shelf.Table, shelf.Taxa);
        Assert.Empty(KeyParting.Of(more, ["Alba prima", "Alba secunda"], []).Contradictions);
    }

    // The island's own keys and descriptions were made together.
    [Fact]
    public void TheIslandContradictsItselfNowhere()
    {
        var shelf = Torvane.TorvaneFlora.Shelf;
        foreach (var some in Torvane.TorvaneFlora.Taxa.Where(t => t.Rank == "species").Select(t => t.Name).Chunk(8))
        {
            var found = KeyParting.Of(shelf, some, []).Contradictions;
            Assert.True(found.Count == 0, string.Join("\n", found));
        }
    }

    [Fact]
    public void AKeyThatEndsBeforeTheyPartSaysSo()
    {
        var parting = KeyParting.Of(Shelf(), ["Alba prima", "Alba secunda"], []);
        Assert.Equal(["Key to the shrubs"], parting.Couplets.Select(c => c.Title));
        Assert.Equal(["Key by flowers"], parting.Unparted);
    }

    [Fact]
    public void ThePlantInHandIsHeldAgainstTheClaims()
    {
        var look = new Observation(
            Guid.NewGuid(),
            "petal.number",
            Outcome.Seen,
            [],
            false,
            [new Reading(5, "5", 0)],
            0,
            0,
            Sureness.Sure,
            new ObservationContext(),
            Tool.Eye,
            "2026-05-01",
            ""
        );
        var leads = KeyParting.Of(Shelf(), ["Alba secunda", "Alba tertia"], [look]).Couplets[0].Leads;
        Assert.Equal([true, false], leads.Select(l => l.Claims.Single(c => c.Character == "petal.number").SeenFits));
    }

    [Theory]
    [InlineData("Leaves opposite; petals 5; leaves alternate", "Leaves alternate; petals 4", "1:1 It contradicts itself")]
    [InlineData("Leaves  hairy", "leaves hairy", "1:0 Leads 1 and 2 say the same")]
    [InlineData("Leaves hairy, grumblish", "Leaves hairy, slithy", "1:0 Leads 1 and 2 are read alike")]
    [InlineData("Leaves usually opposite; petals 5", "Leaves alternate; petals 4", "")]
    [InlineData("Leaves 2–4 cm long; leaves 6–9 cm long", "Leaves 2 cm wide", "1:1 It contradicts itself")]
    public void WhatCantBeMeantSoIsSaid(string one, string other, string problem)
    {
        var key = KeyTextReader.Read($"Key to two\n\n1. {one} ... Alba prima\n1. {other} ... Alba secunda\n").Keys[0];
        var version = new KeyVersion(KeyHash.Of(key), key);
        var table = CharacterTable.Empty with { Botany = ShippedVocabulary.Botany };
        var found = Garten.Core.Contracts.ReadKey.Of(new BenchShelf(new KeyShelf([version]), table, []), version).Problems;
        Assert.StartsWith(problem, string.Join(" ", found.Select(p => $"{p.Couplet}:{p.Lead} {p.Message}")), StringComparison.Ordinal);
        Assert.Equal(problem.Length > 0 ? 1 : 0, found.Count);
    }

    private static readonly TaughtTerm Hoary = new("leaf.hair-density", "tomentose", "hoary");

    [Fact]
    public void WhatAWordChangesIsSeenBeforeItIsTaught()
    {
        var shelf = Shelf();
        var preview = TeachingPreview.Of(shelf, Hoary, shelf.Keys.Versions[0]);
        Assert.Equal(("", 2, 0, "Key to the shrubs"), (preview.Known, preview.Count, preview.Losing, preview.Book));
        Assert.Contains(preview.Changed, c =>
            c is { Text: "leaves hoary", Before: "" } && c.After.Contains("felted", StringComparison.Ordinal)
        );
        // For one book alone only that changes.
        var one = TeachingPreview.Of(shelf, Hoary with { Book = "Key by flowers" }, shelf.Keys.Versions[0]);
        Assert.Equal(["Key by flowers"], one.Changed.Select(c => c.Title));
        // Nothing was taught by looking.
        Assert.Empty(shelf.Readings(shelf.Keys.Versions[1], "1")[0][1].Claims);
    }

    [Fact]
    public void AWordTaughtForOneBookIsReadInItAlone()
    {
        var shelf = Shelf(Hoary with { Book = "key  by FLOWERS" });
        Assert.Single(shelf.Readings(shelf.Keys.Versions[1], "1")[0][1].Claims);
        Assert.Empty(shelf.Readings(shelf.Keys.Versions[0], "2")[0][1].Claims);
    }

    [Fact]
    public void AWordThatIsKnownSaysWhatItIs()
    {
        var shelf = Shelf();
        string Known(string word) => TeachingPreview.Of(shelf, Hoary with { Term = word }, null).Known;
        Assert.Contains("a part: petal", Known("petals"), StringComparison.Ordinal);
        Assert.Contains("hairs: hairless", Known("glabrous"), StringComparison.Ordinal);
        // A second meaning of a known word takes what it said.
        var taught = TeachingPreview.Of(shelf, new("leaf.outline", "ovate", "opposite"), null);
        Assert.All(taught.Changed, c => Assert.True(c.Before != c.After));
    }

    // Answers keep the reading that they cite, whatever is taught or mended since.
    [Fact]
    public void AKeptReadingGoesBeforeThatOfNow()
    {
        var shelf = Shelf();
        var version = shelf.Keys.Versions[0];
        var older = new KeptReading(version.Hash, 1, shelf.WholeReadingByGlossary(version));
        var held = new BenchShelf(shelf.Keys, shelf.Table, [], kept: [older]);
        Assert.NotEmpty(shelf.Readings(version, "1")[0][0].Claims);
        Assert.Empty(held.Readings(version, "1")[0][0].Claims);
        Assert.All(shelf.WholeReading(version).SelectMany(c => c.Leads).SelectMany(l => l), s => Assert.Null(s.Clauses));
    }

    [Theory]
    [InlineData("abc", "abc", 0)]
    [InlineData("abc~2", "abc", 2)]
    [InlineData("abc~x", "abc~x", 0)]
    [InlineData("~3", "~3", 0)]
    public void ACitationNamesVersionAndReading(string cited, string hash, int reading) =>
        Assert.Equal((hash, reading), TrailAnswer.ReadCitation(cited));
}
